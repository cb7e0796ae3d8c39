import type { Job } from '../api/types';
import { ATTESTED_CHECKS, CHECK, HAND_CHECKS } from '../api/words';

export const checkName = (code: string) => (CHECK as Record<string, string>)[code] ?? code;

/** What only a person's word settles and nobody has given theirs for yet. */
export const unchecked = (job: Job): string[] =>
    job.may.attest.allowed
        ? job.checks.filter((c) => c.state === 'unknown' && ATTESTED_CHECKS.includes(c.code)).map((c) => c.code)
        : [];

/** What the job's own steps are on their way to bring about, so that it is not there yet and is no fault. */
export const isComing = (job: Job, code: string): boolean =>
    job.position === 'safeguarding' &&
    !HAND_CHECKS.includes(code) &&
    job.steps.every((s) => s.state !== 'failed' || s.stage !== 'safeguard');
