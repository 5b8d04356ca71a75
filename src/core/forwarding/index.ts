export { CARRY } from "./carry";
export { DOMAINS } from "./domains";
export { flood, type Flood, legsHearing, type Source, wayTo } from "./flood";
export { carriedVids, joinNodes, type Crossing, JOINS, type Nodes } from "./joins";
export { CARRY_READS, portCarries, type PortCarry } from "./need";
export { USES } from "./uses";
export { cableWay } from "./way";
