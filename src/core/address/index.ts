export {
  type Address,
  explodeIpv6,
  type Family,
  familyOf,
  formatAddress,
  formatIpv4,
  formatIpv6,
  ipv4,
  type Ipv4,
  ipv6,
  type Ipv6,
  parseAddress,
  parseIpv4,
  parseIpv6,
  step,
} from "./address";
export { nextFreeAddress, nextFreeSubnet } from "./allocate";
export { subPrefix6, uniqueLocalPrefix } from "./ipv6-plan";
export { linkLocal, madeMac, selfMadeAddress } from "./interface-id";
export { isGroup, isLocallyAdministered, type Mac, parseMac } from "./mac";
export { freePrefixes, packSubnets, type SubnetWish } from "./pack";
export {
  addressAt,
  addressCount,
  asPrefix4,
  asPrefix6,
  byPrefix,
  containsAddress,
  containsPrefix,
  formatPrefix,
  lastOf,
  lengthForHosts,
  masksAsSlashes,
  netmaskText,
  offsetIn,
  parsePrefix,
  type Prefix,
  type Prefix4,
  type Prefix6,
  prefixesOverlap,
  prefixLengthOf,
  prefixOf,
  readPrefix,
  shortPrefix,
  usableIn,
} from "./prefix";
export { PrefixTable } from "./prefix-table";
export { subnetsOf, summarise, supernetOf } from "./prefix-set";
export {
  type AddressRange,
  formatRange,
  freeRanges,
  inRange,
  rangeCount,
  rangesOverlap,
  usableRange,
} from "./range";
export { isLinkLocal, isSelfGiven, SPECIAL_BLOCKS, type SpecialUse } from "./special";
