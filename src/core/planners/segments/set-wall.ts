import { sameEnd } from "../../policy";
import type { PlanEdits, Service, Wall, WallEnd } from "../../plan";

/**
 * Sets what may pass from one end to the other; closing a pair removes its wall, since closed is what holds
 * without one.
 */
export function setWall(
  edits: PlanEdits,
  ids: () => string,
  {
    from,
    to,
    door,
    services,
    reason,
  }: {
    readonly from: WallEnd;
    readonly to: WallEnd;
    readonly door: Wall["door"];
    readonly services: readonly Service[];
    readonly reason: string;
  },
): void {
  const existing = edits.all("wall").find((wall) => sameEnd(wall.from, from) && sameEnd(wall.to, to));
  if (door === "closed") {
    if (existing !== undefined) edits.remove("wall", existing.id);
    return;
  }
  edits.put("wall", {
    id: existing?.id ?? ids(),
    from,
    to,
    door,
    services: door === "services" ? [...services] : [],
    reason,
    conduit: existing?.conduit ?? null,
  });
}

/** Adds one service to whatever the wall lets through already. */
export function openDoor(
  edits: PlanEdits,
  ids: () => string,
  { from, to, service }: { readonly from: WallEnd; readonly to: WallEnd; readonly service: Service },
): void {
  const existing = edits.all("wall").find((wall) => sameEnd(wall.from, from) && sameEnd(wall.to, to));
  if (existing?.door === "open") return;
  const others = (existing?.services ?? []).filter(
    (s) => s.name !== service.name || s.protocol !== service.protocol,
  );
  setWall(edits, ids, {
    from,
    to,
    door: "services",
    services: [...others, service],
    reason: existing?.reason ?? "",
  });
}
