import { hasRadios, type Derived, type PlanIndex } from "../plan";
import { grouped } from "../kernel";

/**
 * By access point, those it hears: entered at either of the two, or because they stand in one room or in
 * adjacent ones.
 */
export type Hearing = ReadonlyMap<string, ReadonlySet<string>>;

// eslint-disable-next-line complexity -- the three ways in which access points hear one another
function hearingOf(index: PlanIndex): Hearing {
  const { plan } = index;
  const points = [...plan.device.values()].filter(hasRadios);
  const heard = new Map<string, Set<string>>(points.map((point) => [point.id, new Set()]));
  const hear = (a: string, b: string) => {
    heard.get(a)?.add(b);
    heard.get(b)?.add(a);
  };
  for (const point of points)
    for (const other of point.hears) if (heard.has(other) && other !== point.id) hear(point.id, other);
  const placed = points.filter((point) => point.place !== "");
  const byPlace = grouped(placed, (point) => point.place.toLowerCase());
  for (const [place, own] of byPlace) {
    for (const [i, a] of own.entries()) for (const b of own.slice(i + 1)) hear(a.id, b.id);
    for (const id of index.roomAt(place)?.beside ?? []) {
      const next = byPlace.get(plan.room.get(id)?.name.toLowerCase() ?? "") ?? [];
      for (const a of own) for (const b of next) hear(a.id, b.id);
    }
  }
  return heard;
}

export const HEARING: Derived<Hearing> = { reads: ["device", "room"], make: hearingOf };
