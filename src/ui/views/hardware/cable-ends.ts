import { Position } from "@xyflow/react";
import type { Device, PlanIndex, Port } from "@/core/plan";
import type { Laid, LayoutPoint } from "@/workers/layout";

/** A cable as it is drawn: the corners of its way from `first` to `last`; without them it goes the shortest way between two boxes. */
export interface DrawnCable { readonly id: string; readonly first: Port; readonly last: Port; readonly route: readonly LayoutPoint[] | null }

/** The layout's own way round the boxes holds as long as nobody has moved one of its two. */
export function drawCables({ plan }: PlanIndex, laid: Laid | null): DrawnCable[] {
  const isMoved = (device: Device | undefined) => device?.position !== null;
  return [...plan.link.values()].flatMap((link): DrawnCable[] => {
    const [a, b] = [plan.port.get(link.a), plan.port.get(link.b)];
    if (a === undefined || b === undefined) return [];
    const route = laid?.routes[link.id];
    if (route === undefined || isMoved(plan.device.get(a.device)) || isMoved(plan.device.get(b.device))) return [{ id: link.id, first: a, last: b, route: null }];
    const start = route[0];
    const place = laid?.places[a.device];
    // The layout may have drawn the cable from its other end: the first port is the one whose box the way begins at.
    const begins = start !== undefined && place !== undefined && touches(place, start);
    return [{ id: link.id, first: begins ? a : b, last: begins ? b : a, route }];
  });
}

export const BOX = { width: 156, height: 50 } as const;

const touches = (box: LayoutPoint, { x, y }: LayoutPoint): boolean => x >= box.x - 2 && x <= box.x + BOX.width + 2 && y >= box.y - 2 && y <= box.y + BOX.height + 2;

/** The sides by which a cable without a way of its own leaves one box and comes to another: the ones that face each other. */
export function facingSides(from: LayoutPoint, to: LayoutPoint): { readonly out: Position; readonly into: Position } {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (Math.abs(dx) > BOX.width && Math.abs(dx) > Math.abs(dy)) return dx > 0 ? { out: Position.Right, into: Position.Left } : { out: Position.Left, into: Position.Right };
  return dy >= 0 ? { out: Position.Bottom, into: Position.Top } : { out: Position.Top, into: Position.Bottom };
}

/** The middle of the longest piece of a way, where its tape has room. */
export function tapePlace(route: readonly LayoutPoint[]): LayoutPoint & { readonly upright: boolean } {
  const pieces = route.slice(1).map((to, i) => ({ from: route[i] ?? to, to }));
  const length = ({ from, to }: { from: LayoutPoint; to: LayoutPoint }) => Math.abs(from.x - to.x) + Math.abs(from.y - to.y);
  const longest = [...pieces].sort((a, b) => length(b) - length(a))[0];
  if (longest === undefined) return { x: 0, y: 0, upright: true };
  return { x: (longest.from.x + longest.to.x) / 2, y: (longest.from.y + longest.to.y) / 2, upright: longest.from.x === longest.to.x };
}
