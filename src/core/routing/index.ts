export { addressesOf, forwardsPackets, getsOut, linesOf, OUTSIDE, prefixesOf, routeFrom, translatesAt, type RouteChoice } from "./routes";
