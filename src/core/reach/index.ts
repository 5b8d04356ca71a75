export { reachOfHost, type HostReach } from "./host-reach";
export {
  differenceAt,
  intendedAt,
  reachAt,
  reachMatrix,
  reachSentence,
  reachTable,
  type Reach,
  type ReachColumn,
  type ReachMatrix,
} from "./matrix";
