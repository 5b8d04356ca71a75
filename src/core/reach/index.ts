export { differenceAt, intendedAt, reachAt, reachMatrix, reachSentence, reachTable, type Reach, type ReachColumn, type ReachMatrix } from "./matrix";
