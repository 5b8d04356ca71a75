export { laptopText, opensText } from "./card";
export { provenRunbook, type Runbook, type Step } from "./runbook";
export { interruptsText, runbookTable } from "./table";
