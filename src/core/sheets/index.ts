export { gearTable, lineTable } from "./gear-tables";
export { glanceAt, nextStep, progressOf, SHEET_ORDER, type Glance, type NextStep } from "./at-a-glance";
export { useOfSubnets, type SubnetUse } from "./use-of-subnets";
export { renumberTable } from "./renumber-table";
export { jacketOf, jacketOfRole, jacketText, tapeOf, tapeSlots, type Jacket, type Tape } from "./jacket";
export {
  deviceLine,
  devicesInOrder,
  freePorts,
  isDecidedElsewhere,
  ownAddress,
  pluggedIn,
  portCounts,
  runsByDevice,
  runText,
  type PortCounts,
} from "./port-sheet";
export {
  attachmentText,
  DEVICE_KIND_WORDS,
  hostCellText,
  legCellText,
  registerRows,
  type RegisterRow,
} from "./register-sheet";
export { rulerOf, type Pin, type Ruler, type Stretch } from "./ruler";
export {
  keptClear,
  partsOfBlock,
  poolsWithCounts,
  rowScope,
  segmentCellText,
  segmentFigures,
  segmentsInOrder,
  segmentTotals,
  type BlockPart,
  type KeptClear,
  type SegmentFigures,
  type SegmentTotals,
} from "./segment-sheet";
export { quietPart, shortIn } from "./short-address";
export { addressRegisterTable, placesOf, portScheduleTable } from "./tables";
export { pathCounts, vlanPaths, type PathCell, type PathDevice, type VlanPaths } from "./vlan-paths";
export { cableScheduleTable, cablesInOrder, type CableRow } from "./cable-schedule";
export { cabinets, freeUnit, type Cabinet } from "./cabinets";
export { pointRows, type PointRow } from "./wireless-sheet";
export { find, type Hit } from "./find";
