export { isBelieved, leastAlong, wayFrom, type Hop, type Way } from "./ways";
export { enteredOn, type Entered } from "./entered";
export {
  addressesOf,
  facingAddresses,
  forwardsPackets,
  linesOf,
  OUTSIDE,
  prefixesOf,
  routeFrom,
  translatesAt,
  type RouteChoice,
} from "./routes";
