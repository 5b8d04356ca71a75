export { decide, endOf, sameEnd, wallBetween, type Decision, type Party } from "./decide";
export { doorsInOrder, wallCell, wallEnds, zonesInOrder, type WallCell } from "./grid";
export { SERVICES, serviceText } from "./services";
export {
  judge,
  type DecidedBy,
  type FilterAction,
  type FilterList,
  type FilterRule,
  type Judgement,
  type Network,
} from "./filter";
export {
  pass,
  passBack,
  type FilteringRouter,
  type Passage,
  type PortForward,
  type ReturnPassage,
} from "./gateway";
export { INTERNET, networkOfSegment, WALL_RULES, type WallRule, type WallRules } from "./wall-rules";
export { answerTo, type Packet } from "./packet";
