export type { AnyCheck, Family, Finding, Repair, Severity, Subject } from "./check";
export { previewChanges, type Preview } from "./preview";
export {
  CHECKS,
  checkOf,
  listFindings,
  recheck,
  repairsOf,
  runChecks,
  sentenceOf,
  type FindingsByCode,
} from "./registry";
export { counted, listed, rangeWithCount, shortAddress } from "./wording";
