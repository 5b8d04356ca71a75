import { byText } from "../kernel";
import {
  adminServerUnreachable,
  adminWithoutAccount,
  certificateEnds,
  wirelessSignInUnreachable,
} from "./guards/administrators";
import {
  bindingsLost,
  changingMac,
  guardBeyondGear,
  isolatedUplink,
  routerGuardWithoutTrust,
  sourceCheckKills,
  voicePolicyDiffers,
} from "./guards/port-guards";
import { BASELINE_CHECKS } from "./gear/baseline";
import { treeTimersUnfit } from "./trees/timers";
import type { PlanIndex } from "../plan";
import type { AnyCheck, Finding } from "./check";
import type { Repair } from "../repairs";
import {
  cableMisfit,
  cableTooLong,
  copperBetweenBuildings,
  loopThroughUnmanaged,
  speedMismatch,
  uplinkOversubscribed,
} from "./gear/cabling";
import { vlanMissingOnSpareWay, vlanNeedless } from "./vlans/carried";
import { heightUnitsClash, portsCannotMix, portsRunOut, softwareNameTwice, tooManyVlans } from "./gear/gear";
import { lagEndsDiffer } from "./gear/lags";
import { noPowerOnPort, poeBudgetOverrun, poeOneSupplyLost } from "./gear/power";
import { accessPortToPoint, guestsNotIsolated, securityNotFor6, weakSecurity } from "./wireless/wireless";
import { ssidDiffers, tooManySsids } from "./wireless/names";
import { channelNotAllowed, channelsClash, wideIn24 } from "./wireless/radios";
import {
  asksFromNowhere,
  bridgeMacTwice,
  enteredDiffers,
  joinsWhereNotOffered,
  lineNotTold,
  nextHopNotReached,
} from "./addressing/entered";
import { gatewayMissing, gatewayNotUsable, routerWithoutAddress6 } from "./addressing/gateway";
import {
  hostOutsideSubnet,
  poolOutsideSubnet,
  poolOverGateway,
  poolTooSmall,
  staticInPool,
} from "./addressing/pools";
import {
  hostInWrongVlan,
  portInconsistent,
  portSharedTwice,
  portsUndecided,
  portVlanUndefined,
  trunkToOneHost,
} from "./vlans/ports";
import { gearAddressTaken, secondRouterServes, supportEnded } from "./gear/found-gear";
import { leaseOutlivesVisit, namesWithoutServer, poolEmpty } from "./addressing/leases";
import {
  hostNameNotAllowed,
  hostNameTwice,
  vlanNameDiffers,
  vlanNameTooLong,
  vlanNotCreated,
} from "./addressing/names";
import { firstAddressMet, nameUnfitForModel } from "./gear/leaflets";
import { macIsGroup, reservedInStaticBlock, schoolMixed } from "./addressing/schools";
import {
  advertisedPrefixLength,
  noRoomForGrowth,
  publicSpaceInside,
  reservedSpaceInside,
  subnetWithoutRoom,
} from "./addressing/space";
import {
  inspectionKillsHosts,
  signInOldPort,
  signInServerUnreachable,
  snoopingWithoutTrust,
} from "./guards/protections";
import {
  givesUpFirst,
  limitedWithoutDhcp,
  phonesWithoutServer,
  signInVlanUnknown,
  signInWatches,
  tooManyBehindPort,
} from "./guards/sign-in";
import {
  forwardBehindCarrier,
  forwardExposes,
  forwardHostMoves,
  forwardOver,
  forwardPortsClash,
} from "./gateway/forwards";
import {
  lineLossUnseen,
  linePinMoves,
  linePinsClash,
  lineShares,
  lineTargetInside,
  lineWithoutName,
} from "./gateway/lines";
import { boxNetworkSeen } from "./gateway/behind-box";
import { delegatedTooSmall, hangsOnPrefix, outsideDelegated } from "./gateway/delegated";
import { conduitEmpty, conduitTooWeak, doorWithoutConduit, levelSkipped } from "./walls/conduits";
import { discoveryToStrangers, discoveryWithoutLeg, foundByAddressOnly } from "./gateway/discovery";
import { serviceDiffers, serviceUnclear } from "./walls/own-services";
import { exceptionHostMoves, exceptionNeedless, exceptionOver, vendorStays } from "./walls/exceptions";
import { hostsOpenPorts, listWithoutMemory } from "./walls/filter-settings";
import { safetyLinked, straightToCell } from "./walls/industrial";
import { tunnelPortForwarded, tunnelWithoutEnd, wishCannot } from "./gateway/ways-in";
import { callsDoNotFit, callsLikeOthers, marksOfAnybody, priorityWithoutTag } from "./gateway/classes";
import { routeHidesOwn, routeNextHopLost } from "./gateway/routes";
import { noWayBack, routesInCircle } from "./gateway/ways-back";
import { managementReachable, pastTheWalls } from "./walls/reached";
import {
  listLetsMore,
  listStopsMore,
  ruleCanGo,
  ruleNeverReached,
  rulesMergeable,
} from "./walls/standing-lists";
import { edgeOnUplink, guardShutsCable, loopWithoutTree } from "./trees/trees";
import { rootAtTheEdge, rootByAccident, secondRootMissing } from "./trees/roots";
import { regionsDiffer, treeKindsMixed, treeTooDeep } from "./trees/regions";
import { gatewayDoesNotAnswer, serverNotHeard } from "./addressing/unheard";
import { loopThroughUndecided } from "./trees/undecided-loop";
import { namesBehindWall, noAddressServer, twoAddressServers } from "./addressing/servers";
import { subnetMeetsKeptClear, subnetsOverlap } from "./addressing/subnets-overlap";
import { hostInOtherNetwork } from "./addressing/other-network";
import { addressTwice, macTwice } from "./addressing/twice";
import {
  defaultVidForManagement,
  noCableBetween,
  vidTwice,
  vlanMissingOnHop,
  vlansJoined,
} from "./vlans/vlans";

/** Every check, in the order in which findings of one severity are listed. */
export const CHECKS: readonly AnyCheck[] = [
  subnetsOverlap,
  subnetMeetsKeptClear,
  reservedSpaceInside,
  publicSpaceInside,
  subnetWithoutRoom,
  noRoomForGrowth,
  advertisedPrefixLength,
  gatewayNotUsable,
  gatewayMissing,
  routerWithoutAddress6,
  poolOutsideSubnet,
  poolOverGateway,
  poolEmpty,
  poolTooSmall,
  leaseOutlivesVisit,
  noAddressServer,
  twoAddressServers,
  namesBehindWall,
  namesWithoutServer,
  secondRouterServes,
  gearAddressTaken,
  supportEnded,
  staticInPool,
  reservedInStaticBlock,
  schoolMixed,
  hostOutsideSubnet,
  addressTwice,
  macTwice,
  macIsGroup,
  hostNameTwice,
  hostNameNotAllowed,
  vidTwice,
  defaultVidForManagement,
  vlanMissingOnHop,
  noCableBetween,
  vlansJoined,
  portVlanUndefined,
  portsUndecided,
  trunkToOneHost,
  hostInWrongVlan,
  hostInOtherNetwork,
  portInconsistent,
  portSharedTwice,
  vlanNotCreated,
  vlanNameDiffers,
  vlanNameTooLong,
  nameUnfitForModel,
  firstAddressMet,
  ...BASELINE_CHECKS,
  loopThroughUnmanaged,
  cableMisfit,
  cableTooLong,
  speedMismatch,
  copperBetweenBuildings,
  lagEndsDiffer,
  noPowerOnPort,
  poeBudgetOverrun,
  poeOneSupplyLost,
  uplinkOversubscribed,
  vlanNeedless,
  vlanMissingOnSpareWay,
  tooManyVlans,
  portsCannotMix,
  softwareNameTwice,
  heightUnitsClash,
  portsRunOut,
  accessPortToPoint,
  channelsClash,
  channelNotAllowed,
  wideIn24,
  guestsNotIsolated,
  weakSecurity,
  securityNotFor6,
  tooManySsids,
  ssidDiffers,
  loopWithoutTree,
  loopThroughUndecided,
  guardShutsCable,
  edgeOnUplink,
  rootByAccident,
  rootAtTheEdge,
  secondRootMissing,
  regionsDiffer,
  treeKindsMixed,
  treeTooDeep,
  snoopingWithoutTrust,
  inspectionKillsHosts,
  enteredDiffers,
  joinsWhereNotOffered,
  nextHopNotReached,
  lineNotTold,
  asksFromNowhere,
  bridgeMacTwice,
  signInServerUnreachable,
  signInOldPort,
  adminServerUnreachable,
  adminWithoutAccount,
  wirelessSignInUnreachable,
  certificateEnds,
  changingMac,
  voicePolicyDiffers,
  isolatedUplink,
  sourceCheckKills,
  bindingsLost,
  routerGuardWithoutTrust,
  guardBeyondGear,
  treeTimersUnfit,
  givesUpFirst,
  phonesWithoutServer,
  signInVlanUnknown,
  tooManyBehindPort,
  limitedWithoutDhcp,
  signInWatches,
  serverNotHeard,
  gatewayDoesNotAnswer,
  routeNextHopLost,
  routeHidesOwn,
  routesInCircle,
  noWayBack,
  hostsOpenPorts,
  listWithoutMemory,
  callsDoNotFit,
  priorityWithoutTag,
  marksOfAnybody,
  callsLikeOthers,
  forwardBehindCarrier,
  forwardHostMoves,
  forwardPortsClash,
  forwardExposes,
  forwardOver,
  lineShares,
  lineLossUnseen,
  lineTargetInside,
  linePinsClash,
  linePinMoves,
  lineWithoutName,
  wishCannot,
  tunnelWithoutEnd,
  tunnelPortForwarded,
  boxNetworkSeen,
  outsideDelegated,
  delegatedTooSmall,
  hangsOnPrefix,
  discoveryWithoutLeg,
  discoveryToStrangers,
  foundByAddressOnly,
  serviceUnclear,
  serviceDiffers,
  exceptionOver,
  exceptionHostMoves,
  exceptionNeedless,
  vendorStays,
  straightToCell,
  levelSkipped,
  conduitTooWeak,
  conduitEmpty,
  doorWithoutConduit,
  safetyLinked,
  pastTheWalls,
  managementReachable,
  listLetsMore,
  listStopsMore,
  ruleNeverReached,
  ruleCanGo,
  rulesMergeable,
];

const BY_CODE = new Map(CHECKS.map((check) => [check.code, check]));
const RANK = { stop: 0, warn: 1, note: 2 } as const;

/** Findings by check, so that an edit replaces only those of the checks that read what changed. */
export type FindingsByCode = ReadonlyMap<string, readonly Finding[]>;

export const runChecks = (index: PlanIndex): FindingsByCode =>
  new Map(CHECKS.map((check) => [check.code, check.run(index)]));

/** All findings, stops first, those of one check by their key. */
export const listFindings = (findings: FindingsByCode): Finding[] =>
  [...findings.values()]
    .flatMap((found) => [...found].sort((a, b) => byText(a.key, b.key)))
    .sort((a, b) => RANK[a.severity] - RANK[b.severity]);

export const checkOf = (finding: Finding): AnyCheck | undefined => BY_CODE.get(finding.code);
export const sentenceOf = (finding: Finding, index: PlanIndex): string =>
  BY_CODE.get(finding.code)?.describe(finding, index) ?? finding.code;
export const repairsOf = (finding: Finding, index: PlanIndex): readonly Repair[] =>
  BY_CODE.get(finding.code)?.repairs(finding, index) ?? [];
