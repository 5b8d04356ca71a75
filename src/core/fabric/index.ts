export { FABRIC, type Fabric, leadOf, membersAt, sharedWires } from "./fabric";
export {
  type BridgePort,
  classify,
  dropReason,
  dropsTagged,
  egressTag,
  isConsistent,
  isMember,
  modeOf,
  type PortMode,
  type Tag,
} from "./member";
