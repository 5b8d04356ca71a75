import { equal } from "../../kernel";
import { sameEnd } from "../../policy";
import type { Refusal } from "../planner";
import { MOST_SERVICES, type PlanEdits, type Service, type Wall, type WallEnd } from "../../plan";

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

/** As long as a wall's reason is (`wallSchema`). */
const MOST_REASON = 120;

/**
 * Lets a door lead to another end. Where one leads there already, it takes in the services of this one, its
 * reason beside its own, and its conduit where it has none.
 */
export function leadDoorTo(edits: PlanEdits, id: string, to: WallEnd): Refusal {
  const wall = edits.need("wall", id);
  const there = edits
    .all("wall")
    .find((other) => other.id !== id && sameEnd(other.from, wall.from) && sameEnd(other.to, to));
  if (there === undefined) {
    edits.patch("wall", id, { to });
    return null;
  }
  edits.remove("wall", id);
  const reason = [...new Set([there.reason, wall.reason])].filter((text) => text !== "").join("; ");
  if (reason.length > MOST_REASON) return `"${reason}" is too long for one door's reason; shorten one first.`;
  const more = wall.services.filter((service) => !there.services.some((offered) => equal(offered, service)));
  const isOpen = there.door === "open" || wall.door === "open";
  const services = isOpen ? [] : [...there.services, ...more];
  if (services.length > MOST_SERVICES)
    return `That door would be of ${services.length} services; it takes ${MOST_SERVICES}.`;
  const conduit = there.conduit ?? wall.conduit;
  edits.patch("wall", there.id, { door: isOpen ? "open" : "services", services, reason, conduit });
  return null;
}
