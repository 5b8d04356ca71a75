import ELK, { type ElkExtendedEdge, type ElkNode } from "elkjs/lib/elk.bundled.js";
import { blocksOf, expand, type Block } from "./layout-blocks";
import type { Laid, LayoutBox, LayoutCable, LayoutPoint } from "./layout-model";

const SPACING = {
  "elk.spacing.nodeNode": "24",
  "elk.spacing.edgeNode": "18",
  "elk.spacing.edgeEdge": "14",
  "elk.layered.spacing.edgeNodeBetweenLayers": "20",
  "elk.layered.spacing.edgeEdgeBetweenLayers": "12",
  "elk.layered.spacing.nodeNodeBetweenLayers": "64",
  "elk.spacing.componentComponent": "48",
};
const TOO_TALL = 1.3;
const GROUP_PADDING = "[top=30,left=12,bottom=12,right=12]";

/** Told before each pass: which one it is, out of how many there may be. */
export type OnPass = (pass: number, most: number) => void;

/**
 * Lays boxes out in layers along their cables, those of one group together, the cables round the boxes. Many
 * boxes at the ends of cables from one box stand as a block with their cables in one tray, or a large site
 * would be a strip nobody can read.
 */
export async function layout(
  boxes: readonly LayoutBox[],
  cables: readonly LayoutCable[],
  onPass: OnPass,
): Promise<Laid> {
  const blocks = blocksOf(boxes, cables);
  onPass(1, blocks.length > 0 ? 1 : 2);
  const down = await layoutTowards("DOWN", boxes, cables, blocks);
  if (blocks.length > 0 || down.height <= down.width * TOO_TALL) return down;
  // A chain or a ring becomes a tall strip downwards: sideways it fits the sheet.
  onPass(2, 2);
  return layoutTowards("RIGHT", boxes, cables, []);
}

type Edge = Pick<LayoutCable, "id" | "from" | "to">;

function graphOf(direction: "DOWN" | "RIGHT", shown: readonly LayoutBox[], edges: readonly Edge[]): ElkNode {
  const groups = [...new Set(shown.map((box) => box.group))];
  return {
    id: "site",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": direction,
      "elk.hierarchyHandling": "INCLUDE_CHILDREN",
      "elk.json.edgeCoords": "ROOT",
      "elk.edgeRouting": "ORTHOGONAL",
      ...SPACING,
    },
    children: groups.map((group) => ({
      id: `group ${group}`,
      layoutOptions: { "elk.padding": GROUP_PADDING, ...SPACING },
      children: shown
        .filter((box) => box.group === group)
        .map(({ id, width, height }) => ({ id, width, height })),
    })),
    edges: edges.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
  };
}

const round = ({ x = 0, y = 0 }: { x?: number; y?: number }): LayoutPoint => ({
  x: Math.round(x),
  y: Math.round(y),
});

/** Reads where boxes stand and which way cables go out of a graph that has been laid out. */
function takePlaces(
  graph: ElkNode,
  places: Record<string, LayoutPoint>,
  routes: Record<string, readonly LayoutPoint[]>,
): void {
  for (const group of graph.children ?? [])
    for (const box of group.children ?? [])
      places[box.id] = round({ x: (group.x ?? 0) + (box.x ?? 0), y: (group.y ?? 0) + (box.y ?? 0) });
  for (const { id, sections } of (graph.edges ?? []) as ElkExtendedEdge[]) {
    const section = sections?.[0];
    if (section !== undefined)
      routes[id] = [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map(round);
  }
}

async function layoutTowards(
  direction: "DOWN" | "RIGHT",
  boxes: readonly LayoutBox[],
  cables: readonly LayoutCable[],
  blocks: readonly Block[],
): Promise<Laid> {
  const inBlock = new Set(blocks.flatMap((block) => block.leaves.map((leaf) => leaf.box.id)));
  const ofBlock = new Set(blocks.flatMap((block) => block.leaves.map((leaf) => leaf.cable.id)));
  const shown = [...boxes.filter((box) => !inBlock.has(box.id)), ...blocks.map((block) => block.box)];
  const edges = [
    ...cables.filter((cable) => !ofBlock.has(cable.id)),
    ...blocks.map((block) => ({ id: block.box.id, from: block.parent, to: block.box.id })),
  ];
  const graph = await new ELK().layout(graphOf(direction, shown, edges));
  const places: Record<string, LayoutPoint> = {};
  const routes: Record<string, readonly LayoutPoint[]> = {};
  takePlaces(graph, places, routes);
  const shared: Record<string, true> = {};
  for (const block of blocks) {
    const opened = expand(block, places[block.box.id] ?? { x: 0, y: 0 }, routes[block.box.id] ?? []);
    delete places[block.box.id];
    delete routes[block.box.id];
    Object.assign(places, opened.places);
    Object.assign(routes, opened.routes);
    for (const { cable } of block.leaves) shared[cable.id] = true;
  }
  return { places, routes, shared, width: graph.width ?? 0, height: graph.height ?? 0 };
}
