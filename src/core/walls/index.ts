export { filteringDevices, type PlannedList, PLANNED_LISTS } from "./planned-list";
export { type Proof, proveList, type ProvenPair } from "./proof";
export { type Purpose } from "./wishes";
export { serviceWords } from "./service-words";
export { coverOf, standingDoor, type StandingList, STANDING_LISTS } from "./standing-list";
export { type IntentAt } from "./wishes";
