export { isBelieved, leastAlong, type Way, wayFrom } from "./ways";
export { enteredOn } from "./entered";
export {
  addressesOf,
  facingAddresses,
  forwardsPackets,
  linesOf,
  OUTSIDE,
  type RouteChoice,
  routeFrom,
  translatesAt,
} from "./routes";
