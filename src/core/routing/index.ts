export { addressesOf, forwardsPackets, linesOf, prefixesOf, routeFrom, translatesAt, type RouteChoice } from "./routes";
