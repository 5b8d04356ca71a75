export { FABRIC, hearersOn, membersAt, ownPort, sharedWires, type Fabric, type Hearers } from "./fabric";
export {
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
