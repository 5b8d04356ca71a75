export { adoptHosts } from "./draft/adopt-hosts";
export { hostLines } from "./draft/draft-hosts";
export { groupsToDraft } from "./draft/frame";
export {
  DRAFT_PARTS,
  draftBatch,
  type DraftedPart,
  type DraftPart,
  draftPlan,
  PART_TITLES,
  USUAL_PARTS,
} from "./draft/draft";
export { neededGear, switchesFor } from "./gear-needed";
export { type Group, groupKey, groupOf, groupTitle } from "./groups";
export { PURPOSE_ROWS, PURPOSE_WORDS } from "./purposes";
export { marksOf } from "./marks";
export { type Reading, readNeeds } from "./read-needs";
export { SCHOOL_WORDS, schoolOf } from "./school";
export { type RoomTally, type SurveyTally, tallyCabinets, tallyRoom, tallySurvey } from "./tally";
