export { allowedBetween, type Allowed, type NetworkGroup } from "./allowed";
export { ruleStates, type RuleState } from "./anomalies";
export { coverOfRule, type Cover } from "./covers";
export { closedList, type CompiledRule, compileWishes, type Wish } from "./compile";
export { compareLists, type Comparison, type Difference } from "./equivalence";
export { conflictingPairs, type ConflictingPairs, type RulePair } from "./pairs";
export {
  everyService,
  groupsOf,
  serviceAt,
  type ServiceGroup,
  type ServiceSpan,
  spansOf,
} from "./service-space";
export { merged, type Span, without } from "./spans";
export { type ListSpace, listSpace } from "./space";
export { type ListRule, packetsIn, type RuleList, ruleListOf, type Universe } from "./universe";
export { type WitnessPacket } from "./witness";
