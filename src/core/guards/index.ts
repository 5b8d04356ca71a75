export { gapCost, gapCostWords, HOLDS_AGAINST } from "./air-gap";
export { hostsOfProfile, stagesOf } from "./way-there";
export { patience, QUICK, quicker, timeline, type Timeline } from "./timeline";
export { timeAt, type TimeAt } from "./timeline-of";
export {
  entryText,
  HOW_WORDS,
  signInSwitches,
  SITUATIONS,
  whoGetsIn,
  type Entry,
  type Situation,
  type WhoRow,
} from "./who-gets-in";
export { serverAnswer, type ServerAnswer, type SigningIn } from "./answer";
export { migration, type Migration } from "./migration";
export { shareRoots, type SharedRoots } from "./share-roots";
export { fullest, type TreeLoad } from "./tree-load";
export { treeReach, treeTimes } from "./tree-times";
export { SAFE_GUARDS, switchOnAhead, type Ahead } from "./switch-on";
