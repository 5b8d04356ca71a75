export { managementAddress } from "./goals";
export {
  asClient,
  type Laptop,
  leaseAt,
  type Outcome,
  pageFrom,
  type Plugged,
  pluggedIn,
  probe,
} from "./probe";
export { serverOf } from "./lease";
export { type Content, emissionsOf, type Message } from "./message";
export {
  adminServerReached,
  gearServerReached,
  serverReached,
  type GearAsks,
  type ServerReached,
} from "./sign-in-server";
export type { PortState } from "./port-state";
export { portStateFor, speaksSignIn } from "./sign-in";
export { runOn } from "./really";
export type { ProbeRun } from "./run";
export type { Step } from "./step";
export { compareOutcomes } from "./compare";
export { askKept, questionWords } from "./kept";
export { evenDomain } from "./unguarded";
export { type Tried, tryRepairs } from "./tried";
export { type Plug, plugKey, plugs, settingsFor } from "./choices";
