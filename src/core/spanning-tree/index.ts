export { pathCost, TREE, type PlanTree } from "./plan-tree";
export { spanningTree, type DecidedBy, type Tree, type TreeBridge, type TreePort, type TreePortState, type TreeRole } from "./tree";
export { treePlace, type TreePlace, type TreeRow } from "./why";
