export {
  BLANK_DEVICE,
  BLANK_GEAR,
  BLANK_HOST,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_PORT,
  BLANK_ROOM,
  BLANK_SEGMENT,
  BLANK_SSID,
  BLANK_TREE,
  isGateway,
  NO_ABILITIES,
  NO_GUARDS,
  NO_PROTECTIONS,
  NO_RADIO_RULES,
  USUAL_ABILITIES,
} from "./blank";
export { applyChanges, assemble, invert, type Change, type ChangeBatch, type IntegrityError } from "./change";
export { diff } from "./diff";
export { Draft } from "./draft";
export { emptyPlan, entityCount, entityOf, type Plan } from "./plan";
export { PlanIndex, type Derived } from "./plan-index";
export { joinsAt, offers, pointsOf, segmentsOfSsid, ssidsOf, vidsOfSsid } from "./offers";
export { MOST } from "./limits";
export { nameOf, wallEndName } from "./names";
export type { Winner } from "./merge";
export { rebase, rebaseMine, type Choose, type Clash } from "./rebase";
export { referencesOf } from "./references";
export {
  BANDS,
  CABLES,
  OPTICS,
  POE_CHOICES,
  SECURITIES,
  type Abilities,
  type Band,
  type Cable,
  type Optic,
  type PoeChoice,
  type RadioRules,
  type Security,
} from "./schema/abilities";
export { TAPE_COLOURS, UUID, vid, type Vid } from "./schema/fields";
export { entityFault, issueSentence, valueAt } from "./schema/faults";
export { HOST_KINDS } from "./schema/host-kinds";
export {
  type Device,
  type DeviceVlan,
  type Host,
  type Interface,
  type Lag,
  type Link,
  type OwnModel,
  type Port,
  type Radio,
  type Template,
} from "./schema/hardware";
export {
  COLLECTION_KINDS,
  KIND_WORDS,
  KINDS,
  LIST_NAMES,
  SCHEMAS,
  type CollectionKind,
  type Entity,
  type EntityOf,
  type Kind,
} from "./schema/kinds";
export type { Domain, Scope, Segment, Service, Ssid, Vlan, Wall, WallEnd, Zone } from "./schema/separation";
export type { Protections, SignIn, TreeSettings } from "./schema/protection";
export {
  probeQuestionSchema,
  type Expectation,
  type Forward,
  type ProbeAs,
  type ProbeGoal,
  type ProbePlace,
  type ProbeQuestion,
  type Route,
} from "./schema/reach";
export { CONVENTIONS, type Line, type Site } from "./schema/site";
export { PURPOSES, type Gear, type HostKind, type Purpose, type Room } from "./schema/survey";
export { nextSteps, type LoggedBatch, type NextSteps } from "./undo";
