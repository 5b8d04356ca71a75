export { FABRIC, ownPort, type Fabric, membersAt, sharedWires } from "./fabric";
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
