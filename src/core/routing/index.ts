export { type Followed, followFrom, isBelieved, leastAlong, type Way, wayFrom } from "./ways";
export { addressIn, farAddress, tunnelService } from "./tunnel-service";
export { enteredOn } from "./entered";
export {
  allLinesOf,
  type Asks,
  lineFor,
  linesInOrder,
  linesOf,
  noticesLoss,
  type OwnLine,
  pinnedLine,
  sharingLines,
} from "./lines";
export {
  addressesOf,
  facingAddresses,
  forwardsPackets,
  OUTSIDE,
  type RouteChoice,
  routeFrom,
  translatesAt,
} from "./routes";
