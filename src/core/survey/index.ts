export { CATALOGUE, catalogueOf, portPowerMw, type DeviceKind } from "./catalogue";
export { DRAFT_PARTS, draftPlan, USUAL_PARTS, type DraftCount, type DraftedPart, type DraftPart, type DraftReport } from "./draft/draft";
export { cabinetOf, neededGear, type PlaceNeed } from "./gear-needed";
export { groupKey, groupOf, groupTitle, roomsInOrder, surveyed, type Group, type Surveyed } from "./groups";
export { asLabel } from "./host-names";
export { PURPOSE_ROWS, PURPOSE_WORDS } from "./purposes";
export { needsOf, readNeeds, type Need, type Reading } from "./read-needs";
export { SCHOOL_WORDS, schoolOf, type School, type SchoolChoice } from "./school";
export { tallyCabinets, tallyRoom, tallySurvey, type CabinetTally, type GroupTally, type RoomTally, type SurveyTally } from "./tally";
