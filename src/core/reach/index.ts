export { type HostReach, reachOfHost } from "./host-reach";
export {
  differenceAt,
  intendedAt,
  type Reach,
  reachAt,
  type ReachColumn,
  reachMatrix,
  type ReachMatrix,
  reachSentence,
  reachTable,
} from "./matrix";
