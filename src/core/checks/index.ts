export { type Accepted, acceptedAs, splitAccepted, wokenBy } from "./accepted";
export type { Family, Finding, Severity } from "./check";
export { type Preview, previewChanges } from "./preview";
export { recheck, recheckByCheck } from "./recheck";
export {
  checkOf,
  CHECKS,
  type FindingsByCode,
  listFindings,
  repairsOf,
  runChecks,
  sentenceOf,
} from "./registry";
