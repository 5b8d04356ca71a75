export { addDevice, connectPorts, placeDevice, type AddDevice } from "./add-device";
export { addStack, readStack, type StackOrder } from "./add-stack";
export { nextDeviceName } from "./device-name";
export {
  CABLE_COLUMNS,
  cableCellText,
  editCableCell,
  layCable,
  pasteCables,
  type CableColumn,
} from "./cable-cell";
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
} from "./edit-cabling";
export { putModel, removeModel, runsText, type ModelText } from "./own-models";
export { namesFromSightings, setSoftwareNames, sharedNames, type Lit } from "./software-names";
export { portsByRule, type PortRule } from "./port-rules";
export {
  editPort,
  GUARD_FLAGS,
  makeWan,
  makeWayBack,
  parkInVlan,
  portFieldText,
  setGuard,
  setMacLimit,
  setProfile,
  type GuardFlag,
  type PortField,
} from "./port-roles";
export {
  addRadios,
  channelsText,
  setChannel,
  setChannels,
  setHearing,
  setRadio,
  setRadioIn,
  setRadioRules,
  widthsFor,
} from "./radios";
export { crossingOf, setCrossing, type CrossingWay } from "./crossing";
export { keepProbe, setExpected } from "./kept-probes";
export { instancesText, setInstances, setProtectedVids, setRegion } from "./protections";
export { chooseRoot, setTreeKind, setTreePriority } from "./spanning-tree";
export { addTemplate, editTemplate, removeTemplate } from "./templates";
export { addSegment, zoneNamed, type AddSegment } from "./add-segment";
export {
  allocate,
  devicesOf,
  movesOfBlock,
  octetSubnet,
  renumberBlock,
  roomyCount,
  roomyLength,
  writeAllocation,
  type Allocated,
  type Allocation,
} from "./allocate";
export { assignAllChannels } from "./assign-channels";
export {
  editRadioCell,
  editSsidCell,
  pasteRadios,
  pasteSsids,
  RADIO_COLUMNS,
  radioCellText,
  SECURITY_SHORT,
  SSID_COLUMNS,
  ssidCellText,
  type RadioColumn,
  type SsidColumn,
} from "./wireless-cell";
export { carryExactly, carryOn } from "./carry-vlan";
export {
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
} from "./conventions";
export { deviceVlansText, setDeviceVlans, setVlanNameLimit } from "./device-vlans";
export { DEVICE_MODELS, modelsOf, type DeviceModel } from "./device-models";
export {
  addKeptClear,
  editLine,
  editLineText,
  editSite,
  LINE_FIELDS,
  removeKeptClear,
  setConventions,
  SITE_FIELDS,
  siteFieldText,
  type LineField,
  type SiteField,
} from "./edit-site";
export {
  addGear,
  addHostKind,
  addLine,
  addRoom,
  baseKind,
  editGear,
  editRoom,
  GEAR_FIELDS,
  isPurpose,
  moveRoom,
  pasteRooms,
  removeLine,
  removeRooms,
  ROOM_FIELDS,
  setAliases,
  type GearField,
  type RoomField,
} from "./edit-survey";
export { addressesText, prefixesText } from "./survey-text";
export {
  OUTSIDE_FIELDS,
  outsideFieldText,
  OWN_FIELDS,
  ownFieldText,
  readLength,
  readRouter,
  setOutside,
  setOwnNetwork,
  type OutsideField,
  type OwnField,
} from "./own-network";
export { readAddresses, type Read } from "./survey-text";
export { HOST_HEADS } from "./host-heads";
export {
  addHost,
  editHostCell,
  joinedAt,
  HOST_COLUMNS,
  HOST_KIND_WORDS,
  MANNER_WORDS,
  parseManner,
  type HostColumn,
} from "./host-cell";
export { asLabel, isHostName } from "./host-label";
export { convertSchool } from "./convert-school";
export { formatLease, parseLease } from "./lease-text";
export { enlarge, enlargementOf, type Enlargement } from "./enlarge";
export { forbiddenRanges, type Forbidden } from "./forbidden";
export { indexOf, planOf } from "./drafted";
export { numberAll6 } from "./number6";
export { movePlug } from "./move-plug";
export { movePool } from "./move-pool";
export { moveSegmentTo } from "./move-segment";
export { addLeg, removeLeg, setLegAddress } from "./legs";
export { nextFreeFor } from "./next-free";
export { fieldsOf, paintPorts, type PortRole } from "./paint-ports";
export { paintSelection, roleAt, type Paint } from "./paint-selection";
export { plan, type Bench, type IdSource, type Refusal } from "./planner";
export { removeDevice, removeHost, removeSegment } from "./remove";
export { addressInSegment, editSegmentCell, SEGMENT_COLUMNS, type SegmentColumn } from "./segment-cell";
export {
  addOption,
  editSegmentField,
  removeOption,
  SEGMENT_FIELDS,
  segmentFieldText,
  setServer,
  type SegmentField,
} from "./segment-fields";
export {
  DEVICE_FIELDS,
  deviceFieldText,
  editDevice,
  editLink,
  notePorts,
  setAbilities,
  setAsksFrom,
  setHostFields,
  setSegmentFields,
  type DeviceField,
} from "./set-fields";
export { renumber, type Move } from "./renumber";
export { mergePartners, mergeSegments, siteSummary, splitSegment } from "./split-merge";
export { gatewayIn, staticBlockIn } from "./static-block";
export { parseService } from "./service-text";
export { accessPointRole, vlanChoices, voiceChoice, type VlanChoice } from "./role-choices";
export { openDoor, setWall } from "./set-wall";
export { addSsid, BAND_WORDS, editSsid, removeSsid, setNameSchool } from "./ssid";
export { pasteHosts, pasteSegments, type Paste } from "./table-paste";
