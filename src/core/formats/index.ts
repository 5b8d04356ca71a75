export {
  hostsFile,
  type NamedAddress,
  namedAddresses,
  reservationTable,
  siteDomain,
  type ZoneFile,
  zoneFiles,
  type Zones,
} from "./zone-file";
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
export { upgradedBatches } from "./older";
export { encodeClash } from "./clash-codec";
export { planFileJsonSchema } from "./json-schema";
export {
  decodePlan,
  decodePlanSliced,
  encodePlan,
  encodePlanSliced,
  type FileFault,
  integrityFault,
  openPlan,
  planFileSchema,
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
  type FieldChange,
  fieldWord,
  kindWord,
  valueWords,
} from "./describe-changes";
