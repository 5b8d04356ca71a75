export { addDevice, type AddDevice, connectPorts, mediumBetween, placeDevice } from "./gear/add-device";
export { addStack, readStack, type StackOrder } from "./gear/add-stack";
export { nextDeviceName } from "./gear/device-name";
export {
  CABLE_COLUMNS,
  cableCellText,
  type CableColumn,
  editCableCell,
  layCable,
  pasteCables,
} from "./gear/cable-cell";
export {
  cableLags,
  dissolveLag,
  labelCables,
  makeLag,
  setCable,
  setLagMode,
  setMedium,
  setOptic,
  setPatch,
} from "./gear/edit-cabling";
export { firstContact, nameOnDevice } from "./gear/first-contact";
export {
  LEAFLET_FIELDS,
  leafletTable,
  leafletText,
  pasteLeaflets,
  setLeaflet,
  type LeafletField,
} from "./gear/leaflet-text";
export {
  BASELINE_FIELDS,
  baselineText,
  clockText,
  lacksText,
  WAY_IN_WORDS,
  type BaselineField,
} from "./gear/baseline-text";
export {
  beyondDevice,
  GEAR_COLUMNS,
  baselineTable,
  gearText,
  IDENTITY_FIELDS,
  isOpen,
  offBaseline,
  pasteGear,
  SITE_ROW,
  toBaseline,
  type GearColumn,
} from "./gear/baseline";
export {
  pasteWindows,
  WINDOW_COLUMNS,
  windowCellText,
  windowTable,
  type WindowColumn,
} from "./site/window-cell";
export { type ModelText, putModel, removeModel, runsText } from "./gear/own-models";
export { type Lit, namesFromSightings, setSoftwareNames, sharedNames } from "./ports/software-names";
export { type PortRule, portsByRule } from "./ports/port-rules";
export {
  editPort,
  type GuardFlag,
  makeWayBack,
  type PortField,
  portFieldText,
  setGuard,
  setMacLimit,
  setProfile,
  setStormLimit,
} from "./ports/port-roles";
export { setVoicePolicy, USUAL_VOICE, voicePolicyText } from "./ports/voice-policy";
export { serversText } from "./ports/server-list";
export { adminPort, setAdminText } from "./gear/admin-sign-in";
export {
  channelsText,
  setChannel,
  setChannels,
  setHearing,
  setRadio,
  setRadioIn,
  setRadioRules,
  widthsFor,
} from "./wireless/radios";
export { crossingOf, type CrossingWay, setCrossing } from "./ports/crossing";
export { keepProbe, setExpected } from "./site/kept-probes";
export {
  instancesText,
  type ProtectedVids,
  readVids,
  setInstances,
  setProtectedVids,
  setRegion,
} from "./ports/protections";
export {
  chooseRoot,
  setTreeKind,
  setTreePriority,
  setTreeTimer,
  TREE_TIMERS,
  type TreeTimer,
} from "./ports/spanning-tree";
export { addTemplate, editTemplate, removeTemplate } from "./site/templates";
export { addSegment, type AddSegment, zoneNamed } from "./segments/add-segment";
export {
  allocate,
  devicesOf,
  octetSubnet,
  renumberBlock,
  roomyCount,
  roomyLength,
  writeAllocation,
} from "./addressing/allocate";
export { assignAllChannels } from "./wireless/assign-channels";
export {
  editRadioCell,
  editSsidCell,
  pasteRadios,
  pasteSsids,
  RADIO_COLUMNS,
  radioCellText,
  type RadioColumn,
  SECURITY_SHORT,
  SSID_COLUMNS,
  ssidCellText,
  type SsidColumn,
} from "./wireless/wireless-cell";
export { carryExactly, carryOn } from "./ports/carry-vlan";
export {
  conventionalGateway,
  freeRuns,
  mainDomain,
  markAmong,
  markFor,
  nextFreeVid,
  nextSubnet,
  nextSubnet6,
  plannedDynamic,
  poolFor,
  tapeFor,
} from "./addressing/conventions";
export { deviceVlansText, setDeviceVlans, setVlanNameLimit } from "./gear/device-vlans";
export {
  addKeptClear,
  editLine,
  editLineText,
  editSite,
  type LineField,
  removeKeptClear,
  setConventions,
  type SiteField,
  siteFieldText,
} from "./site/edit-site";
export { editPaper, type PaperField } from "./site/edit-paper";
export {
  addGear,
  addHostKind,
  addLine,
  addRoom,
  editGear,
  editRoom,
  type GearField,
  moveRoom,
  pasteRooms,
  removeLine,
  removeRooms,
  type RoomField,
  setAliases,
} from "./site/edit-survey";
export { addressesText, prefixesText, type Read, readAddresses } from "./site/survey-text";
export {
  type OutsideField,
  outsideFieldText,
  OWN_FIELDS,
  type OwnField,
  ownFieldText,
  readLength,
  readRouter,
  setOutside,
  setOwnNetwork,
} from "./register/own-network";
export { HOST_HEADS } from "./register/host-heads";
export {
  addHost,
  editHostCell,
  HOST_COLUMNS,
  HOST_KIND_WORDS,
  type HostColumn,
  joinedAt,
  MANNER_WORDS,
  parseManner,
} from "./register/host-cell";
export { asLabel, isHostName } from "./register/host-label";
export { convertSchool } from "./segments/convert-school";
export { formatLease } from "./addressing/lease-text";
export { enlarge, enlargementOf } from "./addressing/enlarge";
export { forbiddenRanges } from "./addressing/forbidden";
export { indexOf, planOf } from "./drafted";
export { numberAll6 } from "./addressing/number6";
export { movePlug } from "./gear/move-plug";
export { movePool } from "./addressing/move-pool";
export { moveSegmentTo } from "./segments/move-segment";
export {
  chooseGateway,
  LEG_FIELDS,
  type LegField,
  legFieldText,
  writeLegField,
} from "./addressing/leg-fields";
export { rescueNetwork, rescueWayOf } from "./gear/rescue";
export { addLeg, removeLeg, setLegAddress } from "./addressing/legs";
export { legAddressIn, nextFreeFor } from "./addressing/next-free";
export { fieldsOf, paintPorts, parkPorts, type PortRole, setAccess } from "./ports/paint-ports";
export { type Paint, paintSelection, roleAt } from "./ports/paint-selection";
export { type EditContext, type IdSource, plan, type Refusal } from "./planner";
export { removeDevice, removeHost, removeSegment } from "./site/remove";
export {
  addressInSegment,
  editSegmentCell,
  SEGMENT_COLUMNS,
  type SegmentColumn,
} from "./segments/segment-cell";
export {
  addOption,
  editSegmentField,
  removeOption,
  type SegmentField,
  segmentFieldText,
  setServer,
} from "./segments/segment-fields";
export {
  type DeviceField,
  deviceFieldText,
  editDevice,
  editLink,
  notePorts,
  setAbilities,
  setAsksFrom,
  setHostFields,
} from "./site/set-fields";
export { type Move, renumber } from "./addressing/renumber";
export { mergePartners, mergeSegments, siteSummary, splitSegment } from "./addressing/split-merge";
export { gatewayIn, staticBlockIn } from "./addressing/static-block";
export { parseService } from "./segments/service-text";
export { accessPointRole, type VlanChoice, vlanChoices, voiceChoice } from "./ports/role-choices";
export { leadDoorTo, openDoor, setWall } from "./segments/set-wall";
export { addSsid, BAND_WORDS, editSsid, removeSsid, setNameSchool } from "./wireless/ssid";
export { type Paste, pasteHosts, pasteSegments } from "./register/table-paste";
export { sizeLeases } from "./addressing/size-leases";
export { adoptPlanned } from "./rules/adopt-list";
export { bringToNeeded, type NeededStep, wayToNeeded } from "./rules/to-needed";
export { mendPair, ruleServices } from "./rules/mend-pair";
export { pasteRules, RULE_COLUMNS, ruleCellText, type RuleColumn, writeRuleCell } from "./rules/rule-cell";
export {
  addRule,
  moveRule,
  readRuleTable,
  replaceRules,
  type RuleFields,
  type RulesRead,
  setFilter,
} from "./rules/rule-list";
export { sideText } from "./rules/side-text";
export {
  type FollowField,
  LINE_COLUMNS,
  type LineColumn,
  lineCellText,
  linesBeside,
  pasteLines,
  writeFollow,
} from "./gateway/line-cell";
export { setUpWay, VPN_NAME, type Way } from "./gateway/set-up-way";
export { usualGateway } from "./addressing/usual-gateway";
export { acceptFinding, type Accepting } from "./site/acceptances";
export {
  EXCEPTION_COLUMNS,
  type ExceptionColumn,
  exceptionCellText,
  pasteExceptions,
} from "./rules/exception-cell";
export {
  CONDUIT_COLUMNS,
  conduitCellText,
  type ConduitColumn,
  inConduit,
  LEVEL_WORDS,
  pasteConduits,
  putInConduit,
  removeConduits,
  securityLevelText,
} from "./rules/conduit-cell";
export { sameServices, serviceUses } from "./rules/follow-services";
export {
  circleFrom,
  pasteServices,
  removeServices,
  SERVICE_COLUMNS,
  serviceCellText,
  type ServiceColumn,
} from "./rules/own-service";
export { partsText, servicesText } from "./rules/service-list-text";
export { hoursText } from "./rules/hours-text";
export { arrangeBox, type Arrangement, ARRANGEMENTS } from "./gateway/provider-box";
export { makeTunnel } from "./gateway/tunnels";
export { pasteTunnels, TUNNEL_COLUMNS, type TunnelColumn, tunnelCellText } from "./gateway/tunnel-cell";
export { pasteWishes, WAY_WORDS, WISH_COLUMNS, type WishColumn, wishCellText } from "./gateway/wish-cell";
export { pinsText } from "./gateway/pin-text";
export { FORWARD_COLUMNS, type ForwardColumn, forwardCellText, pasteForwards } from "./gateway/forward-cell";
export {
  pasteRoutes,
  removeRoutes,
  ROUTE_COLUMNS,
  type RouteColumn,
  routeCellText,
} from "./gateway/route-cell";
export {
  pasteSignIns,
  removeSignIns,
  SIGN_IN_COLUMNS,
  signInCellText,
  type SignInColumn,
} from "./ports/sign-in-cell";
export { choiceWord, PORT_HOSTS, STAGES } from "./ports/sign-in-words";
export {
  copyRegion,
  pasteRegions,
  regionCellText,
  regionColumns,
  type RegionColumn,
  withRegions,
} from "./ports/region-cell";
export { switchOn, type SafeGuard } from "./ports/switch-on";
export { patchGuards } from "./ports/patch-guards";
export { readYes } from "./yes-text";
export { type TreeOf, withPriorities } from "./ports/tree-priorities";
export { routerPort } from "./ports/switch-on-ports";
export type { Reason, SwitchedOn } from "./ports/switching";
export { endDevicesBehind, serverPort } from "./ports/towards-server";
