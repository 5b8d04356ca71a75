import type { Derived, PlanIndex } from "../plan";

/**
 * By access point, those it hears: entered at either of the two, or because they stand in one room or in
 * adjacent ones.
 */
export type Hearing = ReadonlyMap<string, ReadonlySet<string>>;

function hearingOf(index: PlanIndex): Hearing {
  const { plan } = index;
  const points = [...plan.device.values()].filter((device) => device.kind === "accessPoint");
  const heard = new Map<string, Set<string>>(points.map((point) => [point.id, new Set()]));
  const hear = (a: string, b: string) => {
    heard.get(a)?.add(b);
    heard.get(b)?.add(a);
  };
  const byPlace = new Map<string, string[]>();
  for (const point of points) {
    for (const other of point.hears) if (heard.has(other) && other !== point.id) hear(point.id, other);
    const place = point.place.toLowerCase();
    if (place !== "") byPlace.set(place, [...(byPlace.get(place) ?? []), point.id]);
  }
  for (const [place, own] of byPlace) {
    for (const [i, a] of own.entries()) for (const b of own.slice(i + 1)) hear(a, b);
    for (const id of index.roomAt(place)?.beside ?? []) {
      const next = plan.room.get(id)?.name.toLowerCase() ?? "";
      for (const a of own) for (const b of byPlace.get(next) ?? []) hear(a, b);
    }
  }
  return heard;
}

export const HEARING: Derived<Hearing> = { reads: ["device", "room"], make: hearingOf };
