export { laptopText, opensText } from "./card";
export { foundState, isFirstLeg, isUnpowered, setUpDevices, settleGateways, withDeviceAs } from "./found";
export { wayFrom, whyNot } from "./reach";
export { editsOf, operationsBetween, type Edit, type Operation, type Page, PAGES } from "./operations";
export { Rehearsal, type Move, type Rehearsed, type Told } from "./rehearsal";
export {
  provenFrom,
  provenRunbook,
  type Ahead,
  type Progress,
  type Proven,
  type Runbook,
  type Step,
  type StepKind,
} from "./runbook";
export { interruptsText, runbookTable } from "./table";
export { operationWords, secondsToStart } from "./words";
