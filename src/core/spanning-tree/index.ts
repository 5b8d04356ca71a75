export { LOOPS, type Loop } from "./loops";
export { costOfPort, pathCost, shortPathCost } from "./costs";
export { bridgeAddress, TREE, treeIn, type NamedTree, type PlanTree } from "./plan-tree";
export { treePicture, type TreePicture } from "./picture";
export { regionDifference, regionKey, treeByVid } from "./region";
export {
  spanningTree,
  type DecidedBy,
  type Tree,
  type TreeBridge,
  type TreePort,
  type TreePortState,
  type TreeRole,
} from "./tree";
export { priorityIn, treePlace, treesOf, type TreePlace, type TreeRow } from "./why";
