import type { Job, JobSummary, Stage, Step } from '../api/types';
import { STAGE } from '../api/words';

/** The stages that a job of its kind has. */
export const stagesOf = (job: JobSummary) => job.stages.map((stage) => ({ stage, name: STAGE[stage] }));

export const stageOf = (job: JobSummary): Stage => job.stage;

export const stepsOf = (job: Job, stage: Stage): Step[] => job.steps.filter((s) => s.stage === stage);

/** Whether the Now bar tells already what this step waits for. */
export const isTold = (job: Job, step: Step): boolean => job.now.step === step.code && job.now.leg === step.leg;

export const phaseWords = (step: Step): string =>
    step.phase ?? (step.state === 'ready' ? 'Waiting for a free worker' : 'Beginning');
