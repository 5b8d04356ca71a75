export { failureKey, failureName, singleFailures, type Failure } from "./kinds";
export { FailureStudy, lostCount, type Loss } from "./study";
export {
  bySegment,
  lossWords,
  ranked,
  singlePoints,
  type LossBySegment,
  type RankedLoss,
  type SinglePoint,
} from "./summary";
