export { enteredOn, type Entered } from "./entered";
export { addressesOf, facingAddresses, forwardsPackets, getsOut, linesOf, OUTSIDE, prefixesOf, routeFrom, translatesAt, type RouteChoice } from "./routes";
