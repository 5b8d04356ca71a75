export { CATALOGUE, catalogueOf, portPowerMw, type DeviceKind } from "./catalogue";
export { adoptHosts, type HostLine } from "./draft/adopt-hosts";
export { hostLines } from "./draft/draft-hosts";
export { groupsToDraft } from "./draft/frame";
export {
  DRAFT_PARTS,
  draftBatch,
  draftPlan,
  PART_TITLES,
  USUAL_PARTS,
  type DraftCount,
  type DraftedPart,
  type DraftPart,
  type DraftReport,
} from "./draft/draft";
export { cabinetOf, neededGear, switchesFor, type PlaceNeed } from "./gear-needed";
export { groupKey, groupOf, groupTitle, roomsInOrder, surveyed, type Group, type Surveyed } from "./groups";
export { PURPOSE_ROWS, PURPOSE_WORDS } from "./purposes";
export { marksOf } from "./marks";
export { needsOf, readNeeds, type Need, type Reading } from "./read-needs";
export { SCHOOL_WORDS, schoolOf, type School, type SchoolChoice } from "./school";
export {
  tallyCabinets,
  tallyRoom,
  tallySurvey,
  type CabinetTally,
  type GroupTally,
  type RoomTally,
  type SurveyTally,
} from "./tally";
