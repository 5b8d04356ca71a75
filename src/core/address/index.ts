export {
  explodeIpv6,
  familyOf,
  formatAddress,
  formatIpv4,
  formatIpv6,
  ipv4,
  ipv6,
  parseAddress,
  parseIpv4,
  parseIpv6,
  step,
  type Address,
  type Family,
  type Ipv4,
  type Ipv6,
} from "./address";
export { nextFreeAddress, nextFreeSubnet } from "./allocate";
export { subPrefix6, subPrefixCount, uniqueLocalPrefix } from "./ipv6-plan";
export { linkLocal, madeMac, selfMadeAddress } from "./interface-id";
export { isGroup, isLocallyAdministered, parseMac, type Mac } from "./mac";
export { freePrefixes, packSubnets, shareTaken, type Packed, type SubnetWish } from "./pack";
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
  masksAsSlashes,
  readPrefix,
  lengthForHosts,
  netmaskText,
  offsetIn,
  parseInterfaceAddress,
  parsePrefix,
  prefixesOverlap,
  prefixLengthOf,
  prefixOf,
  usableIn,
  usableRange,
  wildcardText,
  widthOf,
  type Prefix,
  type Prefix4,
  type Prefix6,
} from "./prefix";
export { exclude, subnetCount, subnetsOf, summarise, supernetOf } from "./prefix-set";
export {
  formatRange,
  freeRanges,
  inRange,
  parseRange,
  prefixesOfRange,
  rangeCount,
  rangesOverlap,
  type AddressRange,
} from "./range";
export { isInsideUse, isLinkLocal, SPECIAL_BLOCKS, usesOf, type SpecialUse } from "./special";
