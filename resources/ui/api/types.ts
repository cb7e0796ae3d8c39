import type { components } from './schema';

type Schemas = components['schemas'];

export type Problem = Schemas['Problem'];
export type Person = Schemas['Person'];
export type Bench = Schemas['Bench'];
export type Port = Schemas['Port'];
export type JobSummary = Schemas['JobSummary'];
export type Job = Schemas['Job'];
export type Step = Schemas['Step'];
export type StepCode = Schemas['StepCode'];
export type Stage = Schemas['Stage'];
export type Check = Schemas['Check'];
export type Bag = Schemas['Bag'];
export type Proof = Schemas['Proof'];
export type Route = Schemas['Route'];
export type Plan = Schemas['Plan'];
export type Goal = Schemas['Goal'];
export type Windows = Schemas['Windows'];
export type WindowLane = Schemas['WindowLane'];
