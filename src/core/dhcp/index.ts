export {
  OPTION_KINDS,
  optionFault,
  readOption,
  type OptionKind,
  type OptionType,
  type ReadOption,
} from "./options";
export {
  adviseLease,
  holdSeconds,
  LEASES,
  peakUse,
  type LeaseAdvice,
  type Peak,
  type Visits,
} from "./lease-sizing";
export {
  keptInPool,
  leasableCount,
  offeredCount,
  offeredRanges,
  NO_LEASES,
  offerTo,
  type Leases,
  type Offer,
} from "./scope-room";
export { whoAnswers, type Answer } from "./who-answers";
export { leasedTo, leaseholder, leasesOf, visitorAddress, visitorsWith } from "./leased";
export { waysToServer, type WayToServer } from "./hears-scope";
