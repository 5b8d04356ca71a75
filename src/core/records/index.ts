export { countingEntries, siteAsIs, stateFrom } from "./as-is";
export {
  decodeEntry,
  encodeEntry,
  encodeEntrySliced,
  entryOf,
  PORT_FIELDS,
  recordEntrySchema,
  type Recorded,
  type Read,
  type RecordEntry,
  type Seen,
  type Tick,
  type TickCame,
} from "./entry";
export { recordsOfFile, recordsToFile } from "./file";
export { changesFrom, changesOf, changesOfFound, partsOf } from "./parts";
export { CAME_WORDS, recordTable } from "./table";
export { remaining } from "./remaining";
export {
  follow,
  isOutdated,
  latestVisit,
  readsThatStand,
  tickedStep,
  visitsOf,
  type Followed,
  type Visit,
} from "./visit";
