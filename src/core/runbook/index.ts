export { laptopText, opensText } from "./card";
export {
  foundState,
  isFirstLeg,
  isUnpowered,
  PORT_SETTINGS,
  setUpDevices,
  settleGateways,
  withDeviceAs,
} from "./found";
export { wayFrom, whyNot } from "./reach";
export { editsOf, operationsBetween, type Edit, type Operation, type Page, PAGES } from "./operations";
export { Rehearsal, type Choice, type Move, type Rehearsed, type Told } from "./rehearsal";
export {
  JUST_ASKED,
  provenFrom,
  provenRunbook,
  type Ahead,
  type Asked,
  type Progress,
  type Proven,
  type Runbook,
} from "./runbook";
export { minutesText } from "./minutes";
export { signatureOf } from "./permits";
export type { Step, StepKind } from "./step";
export { slotsOf, timeText, windowsInOrder, type Slot } from "./windows";
export { interruptsText, runbookTable } from "./table";
export { operationWords, secondsToStart } from "./words";
