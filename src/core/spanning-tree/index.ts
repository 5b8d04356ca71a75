export { type Loop, LOOPS } from "./loops";
export { costOfPort, pathCost, shortPathCost } from "./costs";
export { bridgeAddress } from "./bridge-address";
export type { NamedTree } from "./taking-part";
export { type PlanTree, TREE, treeIn } from "./plan-tree";
export { treePicture, type TreePicture } from "./picture";
export { regionDifference, regionKey, treeByVid } from "./region";
export {
  type DecidedBy,
  spanningTree,
  type Tree,
  type TreeBridge,
  type TreePort,
  type TreePortState,
  type TreeRole,
} from "./tree";
export { priorityIn, treePlace, type TreePlace, type TreeRow, treesOf } from "./why";
