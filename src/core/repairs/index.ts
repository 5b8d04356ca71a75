export type { Repair, Subject } from "./repair";
export { addressText, capital, counted, listed, prefixText, rangeWithCount, shortAddress } from "./wording";
export { addScopeRepairs, hearScopeRepairs, isUnheard, waitingWithoutServer } from "./dhcp-server";
export {
  type Entered,
  enteredCause,
  hasEntered,
  mistakeRepairs,
  mistakesOn,
  mistakeWords,
} from "./entered-network";
export { freeAddressRepairs } from "./free-address";
export { gatewayLegRepairs, segmentsWithoutGateway } from "./gateway-leg";
export { growPoolRepairs } from "./grow-pool";
