export { type Break, CARRY, type Carry } from "./carry";
export { type Arrival, flood, type Flood, type Source, wayTo } from "./flood";
export { carriedVids, type Crossing, joinNodes, JOINS, type Nodes } from "./joins";
export { CARRY_READS, portCarries, type PortCarry } from "./need";
export { type User, USES } from "./uses";
export { cableWay, type Hop } from "./way";
