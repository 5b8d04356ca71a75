export { countingEntries, siteAsIs, stateFrom } from "./as-is";
export {
  decodeEntry,
  encodeEntry,
  encodeEntrySliced,
  entryOf,
  MOST_NAMED,
  MOST_PHOTOS_AT_STEP,
  MOST_READ,
  photosOf,
  PORT_FIELDS,
  recordEntrySchema,
  type Recorded,
  type FaultNamed,
  type Read,
  type RecordEntry,
  type Seen,
  type TakenTest,
  type TestCame,
  type TestTaken,
  type Tick,
  type TickCame,
} from "./entry";
export { MOST_FILE_BYTES, MOST_PLAN_BYTES, recordsOfFile, recordsToFile } from "./file";
export { plainJpeg } from "./jpeg";
export {
  MOST_PHOTO_BYTES,
  NO_PHOTO,
  photoBytes,
  photosFor,
  photosLeftBehind,
  photosNamed,
  photosOfFile,
  photosTakenOut,
  photosToFile,
  type Photo,
} from "./photo";
export { changesFrom, changesOf, changesOfFound, partsOf } from "./parts";
export {
  isToTake,
  proofOf,
  proofTable,
  TEST_STATE_WORDS,
  type FactState,
  type FactStanding,
  type Proof,
  type TestStanding,
  type TestState,
} from "./proof";
export { capturedReadings, laidTable, type CapturedReading } from "./captured";
export { CAME_WORDS, recordTable, REMARK_FOR_WORDS, TEST_CAME_WORDS } from "./table";
export {
  MOST_LABELS,
  REMARK_FOR,
  type Close,
  type LabelsPrinted,
  type Remark,
  type RemarkFor,
} from "./remark";
export { diaryOf, type DiaryDay } from "./diary";
export { allDue, pointsOpen, remarksOf, stillCounts, type Remarked } from "./remarks";
export { faultsNamed, laidBeside, namedKinds, readingsOf, recordedAs } from "./readings";
export { CRITERION_WORDS, criteriaOf, criteriaTable, type Criterion, type CriterionState } from "./criteria";
export { SIGNED_AS, type Issue, type Sign, type SignedAs } from "./issue";
export { howItStands, issuedSheets, issuedTable, shortCheck, type IssuedSheet } from "./issued";
export { remaining } from "./remaining";
export { savedBefore } from "./saved";
export { isStillAsked, takenTest } from "./tests-taken";
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
export { recordExports } from "./record-exports";
export { studyExports } from "./study-exports";
