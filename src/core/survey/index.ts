export { adoptHosts, type HostLine } from "./draft/adopt-hosts";
export { hostLines } from "./draft/draft-hosts";
export { groupsToDraft } from "./draft/frame";
export {
  DRAFT_PARTS,
  draftBatch,
  type DraftCount,
  type DraftedPart,
  type DraftPart,
  draftPlan,
  type DraftReport,
  PART_TITLES,
  USUAL_PARTS,
} from "./draft/draft";
export { cabinetOf, neededGear, type PlaceNeed, switchesFor } from "./gear-needed";
export { type Group, groupKey, groupOf, groupTitle, roomsInOrder, surveyed, type Surveyed } from "./groups";
export { PURPOSE_ROWS, PURPOSE_WORDS } from "./purposes";
export { marksOf } from "./marks";
export { type Need, needsOf, type Reading, readNeeds } from "./read-needs";
export { type School, SCHOOL_WORDS, type SchoolChoice, schoolOf } from "./school";
export {
  type CabinetTally,
  type GroupTally,
  type RoomTally,
  type SurveyTally,
  tallyCabinets,
  tallyRoom,
  tallySurvey,
} from "./tally";
