export {
  FABRIC,
  gearAmong,
  hearersOn,
  membersAt,
  ownPort,
  sharedWires,
  type Fabric,
  type Hearers,
  type Member,
} from "./fabric";
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
