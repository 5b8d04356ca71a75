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
export { inTheRunning, nextReadings, readable, toBeSure, WALK_MINUTES } from "./next";
export { diagnosePairs, pairOf } from "./pairs";
export { onPlan, outcomeText, predict, type Predicted, type Reading, type Seen } from "./predict";
export { type Candidate, type Diagnosed, explainsAll, type Named, Study } from "./study";
export type { Suspect } from "./suspect";
export type { Former } from "./suspects";
export { type FourQuestion } from "./why";
