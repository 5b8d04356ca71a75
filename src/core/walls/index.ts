export { joinedProof, provePlanned } from "./proof-in-hours";
export { filteringDevices, type PlannedList, PLANNED_LISTS } from "./planned-list";
export { endOfPair, type Proof, proveList, type ProvenPair, STANDING_PROOFS } from "./proof";
export { type Purpose } from "./wishes";
export { serviceNumbers, serviceWords } from "./service-words";
export {
  coverOf,
  LIST_READS,
  standingAnswers,
  standingDoor,
  type StandingList,
  STANDING_LISTS,
} from "./standing-list";
export { type IntentAt } from "./wishes";
export { pairInList, type PairInList } from "./pair-in-list";
export { standsAsMeant } from "./as-meant";
