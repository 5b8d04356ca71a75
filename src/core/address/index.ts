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
export { subPrefix6, subPrefixCount, uniqueLocalPrefix } from "./ipv6-plan";
export { linkLocal, madeMac, selfMadeAddress } from "./interface-id";
export { isGroup, isLocallyAdministered, type Mac, parseMac } from "./mac";
export { freePrefixes, type Packed, packSubnets, shareTaken, type SubnetWish } from "./pack";
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
  parseInterfaceAddress,
  parsePrefix,
  type Prefix,
  type Prefix4,
  type Prefix6,
  prefixesOverlap,
  prefixLengthOf,
  prefixOf,
  readPrefix,
  usableIn,
  widthOf,
  wildcardText,
} from "./prefix";
export { exclude, subnetCount, subnetsOf, summarise, supernetOf } from "./prefix-set";
export {
  type AddressRange,
  formatRange,
  freeRanges,
  inRange,
  parseRange,
  prefixesOfRange,
  rangeCount,
  rangesOverlap,
  usableRange,
} from "./range";
export { isInsideUse, isLinkLocal, SPECIAL_BLOCKS, type SpecialUse, usesOf } from "./special";
