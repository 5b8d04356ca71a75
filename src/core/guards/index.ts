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
export { SAFE_GUARDS, switchOnAhead, type Ahead } from "./switch-on";
