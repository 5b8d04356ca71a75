import type { CollectionKind, Plan } from "../plan";

/** The field in which something keeps what somebody noted for themselves. */
const NOTES: Partial<Record<CollectionKind, "notes" | "note">> = {
  host: "notes",
  device: "notes",
  gear: "notes",
  leaflet: "notes",
  window: "notes",
  port: "note",
  service: "note",
  wish: "note",
  signIn: "note",
};

/** The plan without what somebody noted for themselves: notes stay in the office. */
export function withoutNotes(plan: Plan): Plan {
  const emptied = Object.entries(NOTES).map(([kind, field]) => [
    kind,
    new Map([...plan[kind as CollectionKind]].map(([id, entity]) => [id, { ...entity, [field]: "" }])),
  ]);
  return { ...plan, ...(Object.fromEntries(emptied) as Partial<Plan>) };
}
