export {
  BLANK_DEVICE,
  BLANK_GEAR,
  BLANK_HOST,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_PORT,
  BLANK_ROOM,
  BLANK_SEGMENT,
  BLANK_EXCEPTION,
  BLANK_ZONE,
  BLANK_FORWARD,
  BLANK_LEAFLET,
  BLANK_RULE,
  hasRadios,
  isFilter,
  keepsState,
  usualFilter,
  USUAL_METRIC,
  BLANK_SIGN_IN,
  BLANK_SSID,
  BLANK_TREE,
  isAdministered,
  isGateway,
  NO_ABILITIES,
  NO_BASELINE,
  NO_GUARDS,
  NO_PROTECTIONS,
  NO_PAPER,
  NO_RADIO_RULES,
  USUAL_ABILITIES,
} from "./blank";
export { planBefore } from "./earlier";
export { applyChanges, assemble, type Change, type ChangeBatch, type IntegrityError, invert } from "./change";
export { diff } from "./diff";
export { notesOnly } from "./notes-only";
export { PlanEdits } from "./plan-edits";
export { emptyPlan, entityCount, entityOf, type Plan } from "./plan";
export { type Derived, PlanIndex } from "./plan-index";
export { joinsAt, offers, pointsOf, segmentsOfSsid, ssidsOf, vidsOfSsid } from "./offers";
export { MOST, MOST_RULES, MOST_SERVICES } from "./limits";
export { nameOf, wallEndName } from "./names";
export type { Winner } from "./merge";
export { type Choose, type Clash, rebase, rebaseMine } from "./rebase";
export { referencesOf } from "./references";
export {
  type Abilities,
  type Band,
  BANDS,
  type Cable,
  CABLES,
  type Lack,
  LACKS,
  type Optic,
  OPTICS,
  POE_CHOICES,
  type PoeChoice,
  type RadioRules,
  SECURITIES,
  type Security,
} from "./schema/abilities";
export {
  HALVES,
  idField,
  lineField,
  longText,
  textField,
  dateField,
  shortText,
  TAPE_COLOURS,
  UUID,
  vid,
  type Vid,
} from "./schema/fields";
export { entityFault, issueSentence, valueAt } from "./schema/faults";
export { HOST_KINDS } from "./schema/host-kinds";
export type {
  Device,
  Host,
  Interface,
  Lag,
  Link,
  OwnModel,
  Port,
  Radio,
  Template,
  VoicePolicy,
} from "./schema/hardware";
export {
  COLLECTION_KINDS,
  type CollectionKind,
  type Entity,
  type EntityOf,
  type Kind,
  KIND_WORDS,
  KINDS,
  LIST_NAMES,
  SCHEMAS,
} from "./schema/kinds";
export { CONTROL_LEVELS, type ControlLevel, TRAFFIC_CLASSES, type TrafficClass } from "./schema/separation";
export type {
  Conduit,
  Domain,
  Exception,
  OwnService,
  Rule,
  RuleSide,
  Scope,
  Segment,
  Service,
  Ssid,
  Vlan,
  Wall,
  WallEnd,
  Zone,
} from "./schema/separation";
export type { SignIn } from "./schema/protection";
export {
  type Expectation,
  questionText,
  readQuestion,
  type Forward,
  type ProbeAs,
  type ProbeGoal,
  type ProbePlace,
  type ProbeQuestion,
  type Route,
  type Wish,
} from "./schema/reach";
export type { Acceptance } from "./schema/acceptance";
export { type Baseline, type WayIn, WAYS_IN } from "./schema/baseline";
export { type Paper } from "./schema/paper";
export { type Window, windowSchema } from "./schema/window";
export type { Leaflet } from "./schema/leaflet";
export { firstAddressOf, leafletFor, type FirstAddress } from "./leaflets";
export type { Line, Pin } from "./schema/line";
export { CONVENTIONS, type Site } from "./schema/site";
export { type Gear, type HostKind, type Purpose, PURPOSES, type Room } from "./schema/survey";
export { nextSteps, type NextSteps } from "./undo";
export { decodeStored, encodeStored } from "./schema/stored";
export { MISFIT } from "./schema/stored-parts";
export { lastNumber, PortNames } from "./port-names";
export { holdsAddress, prefixesOf, segmentHolding, subnetHolding } from "./subnets";
export { storedPlan } from "./stored-plan";
export {
  answeredVid,
  profileOf,
  signInPort,
  signInPorts,
  type SignInPort,
  signInVids,
  wirelessProfile,
} from "./sign-in";
export { afterEdits } from "./after-edits";
