export { nameUpdate } from "./dns-update";
export { accessListText, deviceAccessListText, isRuleData, readRuleData } from "./access-lists";
export { hostsFile, namedAddresses, reservationTable, zoneFiles } from "./zone-file";
export { SITE_TABLES, type SiteTable } from "./site-tables";
export {
  CSV_TYPE,
  deviceExports,
  type ExportContent,
  SITE_EXPORTS,
  type SiteExport,
  zoneExports,
} from "./site-exports";
export {
  batchEnvelopeSchema,
  batchOf,
  changeBatchSchema,
  changeSchema,
  decodeChanges,
  encodeBatch,
  encodeChanges,
  encodeChangesSliced,
} from "./change-codec";
export type { Breath } from "./breath";
export { upgradedBatches, upgradedChanges } from "./older";
export { encodeClash } from "./clash-codec";
export { planFileJsonSchema } from "./json-schema";
export {
  forSite,
  HISTORY_FILE,
  historyOfFile,
  loggedText,
  type LoggedBatch,
  type PlanHistory,
} from "./plan-history";
export {
  decodePlan,
  decodePlanSliced,
  encodePlan,
  planPieces,
  type FileFault,
  integrityFault,
  MOST_BATCHES,
  MOST_PHOTOS,
  openPlan,
  readPlanFile,
  writePlanFile,
} from "./plan-file";
export {
  clashSides,
  type ClashSides,
  countChanges,
  describeChanges,
  type DescribedChange,
  encodedClashSides,
  kindWord,
  valueWords,
} from "./describe-changes";
export { fieldWord } from "./field-words";
