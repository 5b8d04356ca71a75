import { must } from "../src/core/kernel";
import { applyChanges, PlanIndex } from "../src/core/plan";
import { readRuleTable } from "../src/core/planners";
import type { SiteBuilder } from "./site-builder";

/** The list that stands on a device, one rule a row: from, to, services, action, note. */
export function rulesOn(site: SiteBuilder, device: string, rows: readonly (readonly string[])[]): void {
  site.with((edits, id) => {
    const drawn = applyChanges(edits.plan, edits.changes());
    const plan = must(drawn.ok ? drawn.value : null, "the site so far stands");
    const read = readRuleTable(PlanIndex.of(plan), rows);
    const said = typeof read === "string" ? read : read.faults.join(" ");
    const rules = must(typeof read === "string" || read.faults.length > 0 ? null : read.rules, said);
    rules.forEach((fields, at) =>
      edits.put("rule", {
        ...fields,
        id: id("rule", `${device} ${at + 1}`),
        device: id("device", device),
        place: (at + 1) * 1000,
      }),
    );
  });
}
