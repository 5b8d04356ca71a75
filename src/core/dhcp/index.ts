export { OPTION_KINDS, readOption } from "./options";
export { adviseLease, LEASES, peakUse, type Visits } from "./lease-sizing";
export { leasableCount, offeredCount, offeredRanges, offerTo } from "./scope-room";
export { type Answer, whoAnswers } from "./who-answers";
export { leasedTo, leaseholder, leasesOf, visitorAddress, visitorsWith } from "./leased";
export { waysToServer } from "./hears-scope";
