export { type Failure, failureKey, failureName, singleFailures } from "./kinds";
export { FailureStudy, type Loss, lostCount } from "./study";
export {
  bySegment,
  type LossBySegment,
  lossWords,
  ranked,
  type RankedLoss,
  type SinglePoint,
  singlePoints,
} from "./summary";
