export {
  answer,
  type Answer,
  changesOnDevices,
  type ShownCandidate,
  type ShownNext,
  type ShownWhy,
} from "./answer";
export { type Ask, type Asked, askedOf, askKey, askOfKey, isAboutPlan, linesAt } from "./asks";
export { COMMON_WORDS, SUSPECT_KINDS, type SuspectKind } from "./kinds";
export { inTheRunning, nextReadings, toBeSure } from "./next";
export { onPlan, outcomeText, type Reading, type Seen } from "./predict";
export { type Candidate, type Diagnosed, type Named, Study } from "./study";
export type { Former } from "./suspects";
export { type FourQuestion } from "./why";
