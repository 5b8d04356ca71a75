export { CARRY, type Break, type Carry } from "./carry";
export { carriedVids, joinNodes, JOINS, type Crossing, type Nodes } from "./joins";
export { FABRIC, leadOf, sharedWires, type Fabric } from "./fabric";
export { flood, wayTo, type Arrival, type Flood, type Source } from "./flood";
export { CARRY_READS, portCarries, type PortCarry } from "./need";
export { USES, type User } from "./uses";
export { cableWay, type Hop } from "./way";
export {
  type BridgePort,
  classify,
  dropReason,
  egressTag,
  isConsistent,
  isMember,
  modeOf,
  type PortMode,
  type Tag,
} from "./member";
