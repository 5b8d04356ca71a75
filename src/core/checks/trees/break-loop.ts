import { byNaturalText } from "../../kernel";
import { nameOf, type PlanIndex } from "../../plan";
import { setTreeKind } from "../../planners";
import { type Repair, listed } from "../../repairs";

/**
 * The ways out of a loop of cables: a spanning tree on those of its devices that run none and can, or the
 * cable that closes it taken out.
 */
export function breakLoop(index: PlanIndex, devices: readonly string[], link: string | undefined): Repair[] {
  const able = [...new Set(devices)]
    .flatMap((id) => index.plan.device.get(id) ?? [])
    .filter((device) => device.tree.kind === "none" && device.abilities.trees.includes("rapid"))
    .sort((a, b) => byNaturalText(a.name, b.name));
  const trees: Repair[] =
    able.length === 0
      ? []
      : [
          {
            label: `Run a rapid spanning tree on ${listed(able.map((device) => device.name))}`,
            planner: "set-tree",
            args: { devices: able.map((device) => device.id) },
            edit: (edits) =>
              able
                .map((device) => setTreeKind({ edits }, device.id, "rapid"))
                .find((refusal) => refusal !== null) ?? null,
          },
        ];
  const cut: Repair[] =
    link === undefined
      ? []
      : [
          {
            label: `Take ${nameOf(index, "link", link)} out`,
            planner: "remove-link",
            args: { link },
            edit: (edits) => edits.remove("link", link),
          },
        ];
  return [...trees, ...cut];
}
