export type { Attack } from "./attacks";
export { asClient, managementAddress, probe, type Outcome } from "./probe";
export type { Lease } from "./lease";
export { emissionsOf, type Content, type Message } from "./message";
export { profileOf, serverReached } from "./sign-in";
export { ProbeBench } from "./bench";
export type { ProbeFrom } from "./start";
export type { Cause, Step } from "./step";
export { plugKey, plugs, type Plug } from "./choices";
