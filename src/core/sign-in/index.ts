export { hostsOfProfile, stagesOf, type StageAhead } from "./way-there";
export { ANSWER_SECONDS, patience, QUICK, quicker, timeline, type Timeline } from "./timeline";
export {
  entryText,
  HOW_WORDS,
  SITUATIONS,
  whoGetsIn,
  type Entry,
  type Situation,
  type WhoRow,
} from "./who-gets-in";
