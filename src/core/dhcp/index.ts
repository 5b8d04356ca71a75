export { keptInPool, leasableCount, offeredCount, offeredRanges, offerTo, type Offer } from "./scope-room";
export { whoAnswers, type Answer } from "./who-answers";
