export type { Lease } from "./lease";
export { probe, segmentOfAddress, type Outcome, type ProbeGoal, type Question } from "./probe";
export type { ProbeFrom } from "./start";
export type { Cause, Step } from "./step";
export { plugKey, plugs, type Plug } from "./choices";
