export { gearTable, lineTable } from "./gear-tables";
export { type Glance, glanceAt, nextStep, type NextStep, progressOf, SHEET_ORDER } from "./at-a-glance";
export { type SubnetUse, useOfSubnets } from "./use-of-subnets";
export { renumberTable } from "./renumber-table";
export { type Jacket, jacketOf, jacketOfRole, jacketText, type Tape, tapeOf, tapeSlots } from "./jacket";
export {
  deviceLine,
  devicesInOrder,
  freePorts,
  isDecidedElsewhere,
  ownAddress,
  pluggedIn,
  portCounts,
  type PortCounts,
  runsByDevice,
  runText,
} from "./port-sheet";
export {
  attachmentText,
  DEVICE_KIND_WORDS,
  hostCellText,
  legCellText,
  type RegisterRow,
  registerRows,
} from "./register-sheet";
export { type Pin, type Ruler, rulerOf, type Stretch } from "./ruler";
export {
  type BlockPart,
  keptClear,
  type KeptClear,
  partsOfBlock,
  poolsWithCounts,
  rowScope,
  segmentCellText,
  segmentFigures,
  type SegmentFigures,
  segmentsInOrder,
  segmentTotals,
  type SegmentTotals,
} from "./segment-sheet";
export { quietPart, shortIn } from "./short-address";
export { addressRegisterTable, placesOf, portScheduleTable } from "./tables";
export { type PathCell, pathCounts, type PathDevice, vlanPaths, type VlanPaths } from "./vlan-paths";
export { type CableRow, cableScheduleTable, cablesInOrder } from "./cable-schedule";
export { type Cabinet, cabinets, freeUnit } from "./cabinets";
export { type PointRow, pointRows } from "./wireless-sheet";
export { find, type Hit } from "./find";
