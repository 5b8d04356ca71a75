export { reachOfHost } from "./host-reach";
export {
  differenceAt,
  type Reach,
  reachAt,
  type ReachColumn,
  reachMatrix,
  type ReachMatrix,
  reachSentence,
  reachTable,
} from "./matrix";
