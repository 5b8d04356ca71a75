export {
  OPTION_KINDS,
  optionFault,
  type OptionKind,
  type OptionType,
  readOption,
  type ReadOption,
} from "./options";
export {
  adviseLease,
  holdSeconds,
  type LeaseAdvice,
  LEASES,
  type Peak,
  peakUse,
  type Visits,
} from "./lease-sizing";
export {
  keptInPool,
  leasableCount,
  type Leases,
  NO_LEASES,
  type Offer,
  offeredCount,
  offeredRanges,
  offerTo,
} from "./scope-room";
export { type Answer, whoAnswers } from "./who-answers";
export { leasedTo, leaseholder, leasesOf, visitorAddress, visitorsWith } from "./leased";
export { waysToServer, type WayToServer } from "./hears-scope";
