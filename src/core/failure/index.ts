export { type Failure, failureKey, failureName, singleFailures } from "./kinds";
export { spotOf } from "./state";
export { FailureStudy, type Loss } from "./study";
export { FAILURE_WORDS, failureTable } from "./table";
export { bySegment, lossWords, ranked, type RankedLoss, singlePoints } from "./summary";
