export { LOOPS } from "./loops";
export { bridgeAddress } from "./bridge-address";
export type { NamedTree } from "./taking-part";
export { type PlanTree, TREE, treeIn } from "./plan-tree";
export { treePicture, type TreePicture } from "./picture";
export { regionDifference, regionKey } from "./region";
export { type TreeBridge } from "./tree";
export { treePlace, type TreePlace, treesOf } from "./why";
export { configurationDigest } from "./digest";
