export {
  hostsFile,
  namedAddresses,
  reservationTable,
  siteDomain,
  zoneFiles,
  type NamedAddress,
  type ZoneFile,
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
  integrityFault,
  openPlan,
  planFileSchema,
  readPlanFile,
  writePlanFile,
  type FileFault,
} from "./plan-file";
export {
  clashSides,
  countChanges,
  describeChanges,
  encodedClashSides,
  kindWord,
  type ClashSides,
  type DescribedChange,
  type FieldChange,
} from "./describe-changes";
