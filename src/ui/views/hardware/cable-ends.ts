import { Position } from "@xyflow/react";
import type { Device, PlanIndex, Port } from "@/core/plan";
import type { Laid, LayoutPoint } from "@/workers/layout-model";

/**
 * A cable as it is drawn: the corners of its way from `first` to `last`; without them it goes the shortest
 * way between two boxes.
 */
export interface DrawnCable {
  readonly id: string;
  readonly first: Port;
  readonly last: Port;
  readonly route: readonly LayoutPoint[] | null;
  /** The box at whose end alone it is told apart from others in the same tray. */ readonly tapeAt:
    "middle" | "first" | "last";
}

/** The layout's own way round the boxes holds as long as nobody has moved one of its two. */
export function drawCables({ plan }: PlanIndex, laid: Laid | null): DrawnCable[] {
  const isMoved = (device: Device | undefined) => device?.position !== null;
  // eslint-disable-next-line complexity -- two sides times which end is further
  return [...plan.link.values()].flatMap((link): DrawnCable[] => {
    const [a, b] = [plan.port.get(link.a), plan.port.get(link.b)];
    if (a === undefined || b === undefined) return [];
    const route = laid?.routes[link.id];
    if (route === undefined || isMoved(plan.device.get(a.device)) || isMoved(plan.device.get(b.device)))
      return [{ id: link.id, first: a, last: b, route: null, tapeAt: "middle" }];
    const start = route[0];
    const place = laid?.places[a.device];
    // The layout may have drawn the cable from its other end: the first port is the one whose box the way
    // begins at.
    const begins = start !== undefined && place !== undefined && touches(place, start);
    const inTray = laid?.shared[link.id] === true;
    const ends = route.slice(-2);
    // The piece of its own is the short one across to its box, at whichever end that box is.
    const atEnd =
      inTray && ends[0] !== undefined && ends[1] !== undefined && ends[0].y === ends[1].y ? "last" : "first";
    return [
      { id: link.id, first: begins ? a : b, last: begins ? b : a, route, tapeAt: inTray ? atEnd : "middle" },
    ];
  });
}

/** The devices whose cables come down in a tray beside them. */
export const inTrays = ({ plan }: PlanIndex, laid: Laid | null): ReadonlySet<string> =>
  new Set(
    Object.keys(laid?.shared ?? {}).flatMap((id) => {
      const link = plan.link.get(id);
      return link === undefined ? [] : [link.a, link.b].flatMap((port) => plan.port.get(port)?.device ?? []);
    }),
  );

export const BOX = { width: 156, height: 50 } as const;

const touches = (box: LayoutPoint, { x, y }: LayoutPoint): boolean =>
  x >= box.x - 2 && x <= box.x + BOX.width + 2 && y >= box.y - 2 && y <= box.y + BOX.height + 2;

/**
 * The sides by which a cable without a way of its own leaves one box and comes to another: the ones that face
 * each other.
 */
export function facingSides(
  from: LayoutPoint,
  to: LayoutPoint,
): { readonly out: Position; readonly into: Position } {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (Math.abs(dx) > BOX.width && Math.abs(dx) > Math.abs(dy))
    return dx > 0
      ? { out: Position.Right, into: Position.Left }
      : { out: Position.Left, into: Position.Right };
  return dy >= 0
    ? { out: Position.Bottom, into: Position.Top }
    : { out: Position.Top, into: Position.Bottom };
}

/**
 * The middle of the longest piece of a way, where its tape has room; of its first or last piece where it
 * shares the rest.
 */
export function tapePlace(
  whole: readonly LayoutPoint[],
  at: DrawnCable["tapeAt"] = "middle",
): LayoutPoint & { readonly upright: boolean } {
  const last = at === "last" ? whole.slice(-2) : whole;
  const route = at === "first" ? whole.slice(0, 2) : last;
  const pieces = route.slice(1).map((to, i) => ({ from: route[i] ?? to, to }));
  const length = ({ from, to }: { from: LayoutPoint; to: LayoutPoint }) =>
    Math.abs(from.x - to.x) + Math.abs(from.y - to.y);
  const longest = [...pieces].sort((a, b) => length(b) - length(a))[0];
  if (longest === undefined) return { x: 0, y: 0, upright: true };
  return {
    x: (longest.from.x + longest.to.x) / 2,
    y: (longest.from.y + longest.to.y) / 2,
    upright: longest.from.x === longest.to.x,
  };
}
