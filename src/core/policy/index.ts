export { decide, endOf, type WallSide, sameEnd, wallBetween } from "./decide";
export { doorsInOrder, wallCell, wallEnds, zonesInOrder } from "./grid";
export { SERVICES, serviceText } from "./services";
export { type FilterAction, type FilterList, type FilterRule, judge, type Network } from "./filter";
export { INTERNET, networkOfSegment, WALL_RULES, type WallRule } from "./wall-rules";
export { answerTo, type Packet } from "./packet";
