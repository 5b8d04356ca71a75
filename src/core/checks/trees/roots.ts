import { nameOf, type Device, type PlanIndex } from "../../plan";
import { chooseRoot } from "../../planners";
import { check, type Found } from "../check";
import { type Repair, counted, listed } from "../../repairs";
import { READS, partsOf, degree, middleOf, devicesOf } from "./parts";

function rootRepair(index: PlanIndex, members: readonly Device[]): Repair[] {
  const [first, second] = middleOf(index, members);
  return first === undefined
    ? []
    : [
        {
          label:
            `Make ${first.name} the ` +
            `root${second === undefined ? "" : ` and ${second.name} the one that takes over`}`,
          planner: "choose-root",
          args: { root: first.id, second: second?.id ?? null },
          edit: (edits) => chooseRoot({ edits }, first.id, second?.id ?? null),
        },
      ];
}

interface Root {
  readonly root: string;
  readonly members: readonly string[];
}

export const rootByAccident = check<Root>({
  code: "root-by-accident",
  severity: "warn",
  family: "guards",
  title: "Nobody chose the root of the spanning tree",
  why:
    "With the same priority everywhere the lowest MAC address wins: often " +
    "the oldest switch in a cupboard, and all traffic goes through it.",
  reads: READS,
  find: (index): Found<Root>[] =>
    partsOf(index)
      .filter(({ root, members }) =>
        members.some((other) => other.id !== root.id && other.tree.priority === root.tree.priority),
      )
      .map(({ root, members }) => ({
        subjects: [{ kind: "device", id: root.id }],
        data: { root: root.id, members: members.map((device) => device.id) },
      })),
  describe: ({ root, members }, index) => {
    const own = index.plan.device.get(root);
    const same = devicesOf(index, members).filter(
      (other) => other.id !== root && other.tree.priority === own?.tree.priority,
    );
    return (
      `${nameOf(index, "device", root)} is the root of ` +
      `${counted(members.length, "bridge", "bridges")} only because of its MAC address: ` +
      `${listed(same.slice(0, 3).map((device) => device.name))}` +
      `${same.length > 3 ? ` and ${same.length - 3} more` : ""} ` +
      `${same.length === 1 ? "has" : "have"} priority ${own?.tree.priority ?? 0}, too.`
    );
  },
  repairs: ({ members }, index) => rootRepair(index, devicesOf(index, members)),
});

export const rootAtTheEdge = check<Root>({
  code: "root-at-the-edge",
  severity: "warn",
  family: "guards",
  title: "The root of the spanning tree hangs at the edge",
  why: "Every way of the tree leads over the root: at the edge it takes detours over one cable.",
  reads: READS,
  find: (index): Found<Root>[] =>
    partsOf(index)
      .filter(
        ({ root, members }) =>
          members.length > 2 &&
          (root.kind === "accessPoint" ||
            (degree(index, root) === 1 && middleOf(index, members)[0]?.id !== root.id)),
      )
      .map(({ root, members }) => ({
        subjects: [{ kind: "device", id: root.id }],
        data: { root: root.id, members: members.map((device) => device.id) },
      })),
  describe: ({ root }, index) =>
    `${nameOf(index, "device", root)} is the root and hangs on one cable at the edge of the tree.`,
  repairs: ({ members }, index) => rootRepair(index, devicesOf(index, members)),
});

export const secondRootMissing = check<Root>({
  code: "second-root-missing",
  severity: "note",
  family: "guards",
  title: "Nobody is named to take over from the root",
  why:
    "When the root fails, the lowest MAC address among the rest " +
    "decides, and the tree re-forms in a way that nobody planned.",
  reads: READS,
  find: (index): Found<Root>[] =>
    partsOf(index).flatMap(({ root, members }): Found<Root>[] => {
      const others = members.filter((device) => device.id !== root.id && device.kind !== "accessPoint");
      const least = Math.min(...others.map((device) => device.tree.priority));
      const next = others.filter((device) => device.tree.priority === least);
      return others.length < 2 ||
        next.length < 2 ||
        next.some((device) => device.tree.priority <= root.tree.priority)
        ? []
        : [
            {
              subjects: [{ kind: "device", id: root.id }],
              data: { root: root.id, members: members.map((device) => device.id) },
            },
          ];
    }),
  describe: ({ root, members }, index) => {
    const others = devicesOf(index, members).filter((device) => device.id !== root);
    return (
      `${nameOf(index, "device", root)} is the root, and after it ` +
      `${counted(others.length, "bridge has", "bridges have")} the ` +
      "same priority: which takes over is left to MAC addresses."
    );
  },
  repairs: ({ root, members }, index): Repair[] => {
    const second = middleOf(
      index,
      devicesOf(index, members).filter((device) => device.id !== root),
    )[0];
    const own = index.plan.device.get(root);
    if (second === undefined || own === undefined) return [];
    return [
      {
        label: `Let ${second.name} take over`,
        planner: "choose-root",
        args: { root, second: second.id },
        edit: (edits) => chooseRoot({ edits }, root, second.id),
      },
    ];
  },
});
