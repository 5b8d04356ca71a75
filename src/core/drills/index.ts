export { type CableMove } from "./copy";
export { type Level } from "./complaint";
export { COURSE, trainingIndex, type CourseSite, type Lesson } from "./course";
export { debrief, type Debrief } from "./debrief";
export { makeDrill, type Drill } from "./drill";
export { bestOrder, makeOrderDrill, scoreOf, type OrderDrill, type OrderScore } from "./order";
export {
  didText,
  faultsIn,
  lookMinutes,
  looksIn,
  MOVE_MINUTES,
  play,
  WRONG_MINUTES,
  type Act,
  type Played,
  type PlayedRow,
} from "./play";
export {
  MOST_MISTAKES,
  progressTable,
  ROUND,
  tryField,
  type DrillKind,
  type DrillProgress,
  type DrillTry,
  type PersonProgress,
} from "./progress";
export { follow, readingOf, type Followed, type Following } from "./solve";
export { makeSum, SUM_KINDS, type Sum, type SumKind } from "./sums";
