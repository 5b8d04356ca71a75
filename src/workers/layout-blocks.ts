import type { LayoutBox, LayoutCable, LayoutPoint } from "./layout-model";
import { putInto } from "@/core/kernel";

/**
 * Boxes of one group that hang from one box by one cable each, laid out as a single box and opened
 * afterwards.
 */
export interface Block {
  readonly box: LayoutBox;
  readonly parent: string;
  readonly rows: number;
  readonly leaves: readonly { readonly box: LayoutBox; readonly cable: LayoutCable }[];
}

/** Fewer than this stand beside one another as they are. */
const LEAST = 6;
/** Left of each column: the tray the cables come down in, and room for the tape of each. */
export const LANE = 84;
const TRAY_X = 10;
const HEAD = 22;
const GAP = 14;
const BESIDE = 16;

export function blocksOf(boxes: readonly LayoutBox[], cables: readonly LayoutCable[]): Block[] {
  const byBox = new Map<string, LayoutCable[]>();
  for (const cable of cables) for (const end of [cable.from, cable.to]) putInto(byBox, end, cable);
  const siblings = new Map<string, { parent: string; leaves: { box: LayoutBox; cable: LayoutCable }[] }>();
  for (const box of boxes) {
    const own = byBox.get(box.id) ?? [];
    const [cable] = own;
    if (cable === undefined || own.length !== 1 || cable.from === cable.to) continue;
    const parent = cable.from === box.id ? cable.to : cable.from;
    if ((byBox.get(parent)?.length ?? 0) < 2) continue;
    const key = `${parent} ${box.group}`;
    const known = siblings.get(key) ?? { parent, leaves: [] };
    known.leaves.push({ box, cable });
    siblings.set(key, known);
  }
  return [...siblings.entries()]
    .filter(([, { leaves }]) => leaves.length >= LEAST)
    .map(([key, { parent, leaves }]): Block => {
      const columns = Math.max(1, Math.round(Math.sqrt(leaves.length / 5)));
      const rows = Math.ceil(leaves.length / columns);
      const width = Math.max(...leaves.map(({ box }) => box.width));
      const height = Math.max(...leaves.map(({ box }) => box.height));
      return {
        box: {
          id: `block ${key}`,
          group: leaves[0]?.box.group ?? "",
          width: columns * (LANE + width) + (columns - 1) * BESIDE,
          height: HEAD + rows * height + (rows - 1) * GAP,
        },
        parent,
        rows,
        leaves,
      };
    });
}

/**
 * The boxes of a block where they stand, and the way of each cable: along with the others into the block,
 * down its column's tray, then across to its own box.
 */
export function expand(
  { rows, leaves }: Block,
  at: LayoutPoint,
  way: readonly LayoutPoint[],
): { readonly places: Record<string, LayoutPoint>; readonly routes: Record<string, readonly LayoutPoint[]> } {
  const places: Record<string, LayoutPoint> = {};
  const routes: Record<string, readonly LayoutPoint[]> = {};
  const end = way.at(-1) ?? { x: at.x, y: at.y };
  const trayY = at.y + HEAD / 2;
  for (const [i, { box, cable }] of leaves.entries()) {
    const column = Math.floor(i / rows);
    const left = at.x + column * (LANE + box.width + BESIDE);
    const place = { x: left + LANE, y: at.y + HEAD + (i % rows) * (box.height + GAP) };
    const middle = place.y + box.height / 2;
    places[box.id] = place;
    const corners = [
      ...way.slice(0, -1),
      { x: end.x, y: trayY },
      { x: left + TRAY_X, y: trayY },
      { x: left + TRAY_X, y: middle },
      { x: place.x, y: middle },
    ];
    routes[cable.id] = cable.to === box.id ? corners : [...corners].reverse();
  }
  return { places, routes };
}
