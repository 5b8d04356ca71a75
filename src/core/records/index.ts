export { siteAsIs } from "./as-is";
export {
  decodeEntry,
  encodeEntry,
  encodeEntrySliced,
  entryOf,
  recordEntrySchema,
  type Recorded,
  type RecordEntry,
  type Tick,
  type TickCame,
} from "./entry";
export { changesFrom, changesOf, changesOfFound, partsOf } from "./parts";
export { CAME_WORDS, recordTable } from "./table";
export { remaining } from "./remaining";
export { follow, latestVisit, tickedStep, type Followed, type Visit } from "./visit";
