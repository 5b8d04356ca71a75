export { laptopText, opensText } from "./card";
export { Rehearsal, type Move, type Rehearsed, type Told } from "./rehearsal";
export { provenRunbook, type Runbook, type Step } from "./runbook";
export { interruptsText, runbookTable } from "./table";
