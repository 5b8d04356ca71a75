export { gearTable, lineTable } from "./gear-tables";
export { conduitTable, doorTable, serviceTable, zoneTable } from "./wall-tables";
export { wishTable } from "./wish-table";
export { dueTable, fallsDue, type Due } from "./due";
export { glanceAt, nextStep, progressOf } from "./at-a-glance";
export { useOfSubnets } from "./use-of-subnets";
export { renumberTable } from "./renumber-table";
export { type Jacket, jacketOf, jacketOfRole, jacketText, type Tape, tapeOf, tapeSlots } from "./jacket";
export {
  deviceLine,
  devicesInOrder,
  freePorts,
  ownAddress,
  pluggedIn,
  portCounts,
  runsByDevice,
  runText,
} from "./port-sheet";
export {
  DEVICE_KIND_WORDS,
  hostCellText,
  legCellText,
  type RegisterRow,
  registerRows,
} from "./register-sheet";
export { type Pin, type Ruler, rulerOf, type Stretch } from "./ruler";
export {
  keptClear,
  partsOfBlock,
  poolsWithCounts,
  rowScope,
  segmentCellText,
  segmentFigures,
  segmentsInOrder,
  segmentTotals,
} from "./segment-sheet";
export { quietPart, shortIn } from "./short-address";
export { addressRegisterTable, placesOf, portScheduleTable } from "./tables";
export {
  forwardTable,
  radioTable,
  routeTable,
  scopeTable,
  segmentTable,
  ssidTable,
  tunnelTable,
  vlanTable,
} from "./network-tables";
export { type PathCell, pathCounts, type PathDevice, vlanPaths, type VlanPaths } from "./vlan-paths";
export { type CableRow, cableScheduleTable, cablesInOrder } from "./cable-schedule";
export { type Cabinet, cabinets, freeUnit } from "./cabinets";
export { type PointRow, pointRows } from "./wireless-sheet";
export { find } from "./find";
export { type WallsProven, wallsProven } from "./walls-proven";
export { type RuleEnd, type RuleRow, ruleRows, ruleStateWords, ruleTable } from "./rule-rows";
export {
  type GatewayLeg,
  type GatewayLine,
  type GatewaySheet,
  gatewaySheet,
  routingDevices,
} from "./gateway-sheet";
export { answerTable, bindingTable, signInTable, whoTable } from "./sign-in-tables";
