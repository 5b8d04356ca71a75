import type { SiteBuilder } from "./site-builder";

interface Leads {
  readonly securityLevel: number;
  readonly owner: string;
  readonly doors: readonly (readonly [from: string, to: string])[];
}

/** Adds a conduit to a site, with the doors that lead by it. */
export function conduit(site: SiteBuilder, name: string, { doors, ...fields }: Leads): void {
  site.with((edits, id) => {
    const { id: own } = edits.put("conduit", { id: id("conduit", name), name, note: "", ...fields });
    for (const [from, to] of doors) edits.patch("wall", id("wall", `${from}>${to}`), { conduit: own });
  });
}
