export { decide, type Decision, endOf, type Party, sameEnd, wallBetween } from "./decide";
export { doorsInOrder, wallCell, type WallCell, wallEnds, zonesInOrder } from "./grid";
export { SERVICES, serviceText } from "./services";
export {
  type DecidedBy,
  type FilterAction,
  type FilterList,
  type FilterRule,
  judge,
  type Judgement,
  type Network,
} from "./filter";
export {
  type FilteringRouter,
  pass,
  type Passage,
  passBack,
  type PortForward,
  type ReturnPassage,
} from "./gateway";
export { INTERNET, networkOfSegment, WALL_RULES, type WallRule, type WallRules } from "./wall-rules";
export { answerTo, type Packet } from "./packet";
