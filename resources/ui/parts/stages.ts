import type { Job, JobSummary, Stage, Step } from '../api/types';

export const STAGES: { stage: Stage; name: string }[] = [
    { stage: 'identify', name: 'Identify' },
    { stage: 'choose', name: 'Choose' },
    { stage: 'safeguard', name: 'Safeguard' },
    { stage: 'install', name: 'Install' },
    { stage: 'return', name: 'Return' },
    { stage: 'hand-over', name: 'Hand over' },
];

export const stageOf = (job: JobSummary): Stage => job.stage ?? 'hand-over';

export const stepsOf = (job: Job, stage: Stage): Step[] => job.steps.filter((s) => s.stage === stage);

const PHASES: Record<string, string> = {
    read: 'Reading the device',
    asking: 'The device wants its holder’s consent: unlock it and say yes on its screen',
    look: 'Looking whether the package is here already',
    list: 'Listing what is on the device',
    fetch: 'Fetching the package',
    'wait for another job': 'Another job fetches this package; it is shared',
    'compare the digest': 'Comparing the package’s digest',
    'read back': 'Reading every byte back',
    'read the device': 'Reading the device',
    recognising: 'Recognising the device in recovery mode',
    'send the package': 'Sending the package to the device',
    'ask for a permit': 'Asking the vendor for a permit',
    extract: 'The device extracts the package',
    verify: 'The device verifies the package with the vendor’s permit',
    write: 'The device is being written',
    restart: 'The device restarts',
    activate: 'The device is being activated',
    'set-up': 'The device goes through its set-up',
    apply: 'The device takes the data in',
    compare: 'Comparing before and after',
    'open the way': 'All is proven',
    'open with the passphrase': 'Opening the bag with its passphrase, item by item',
    'share the payload': 'Making the lowered copy',
    'write the manifests': 'Writing the manifests',
    'take the right to write': 'Taking the right to write from the bag',
};

export function phaseWords(step: Step): string {
    const phase = step.phase;
    if (phase === null) return step.state === 'ready' ? 'Waiting for a free worker' : 'Beginning';
    if (phase.startsWith('copy ')) return `Copying ${phase.slice(5).replace('-', ' ')}`;
    if (phase.startsWith('bring in ')) return `Bringing in ${phase.slice(9).replace('-', ' ')}`;
    if (phase.startsWith('send ') && PHASES[phase] === undefined) return `Sending ${phase.slice(5).replace('-', ' ')}`;
    return PHASES[phase] ?? phase;
}
