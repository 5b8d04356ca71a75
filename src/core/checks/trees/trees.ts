import { patchGuards } from "../../planners";
import { runsWords } from "../../kernel";
import { nameOf, type PlanIndex, type Port } from "../../plan";
import { LOOPS, TREE } from "../../spanning-tree";

import { breakLoop } from "./break-loop";
import { check, type Found } from "../check";
import { listed } from "../../repairs";
import { READS, betweenBridges } from "./parts";
const vlans = (vids: readonly number[]): string =>
  `${vids.length === 1 ? "VLAN" : "VLANs"} ${runsWords(vids, String)}`;

interface Circle {
  readonly ports: readonly string[];
  readonly vids: readonly number[];
  readonly devices: readonly string[];
}

export const loopWithoutTree = check<Circle>({
  code: "loop-without-tree",
  severity: "stop",
  family: "guards",
  title: "Cables form a loop and no port blocks",
  why:
    "A broadcast goes round for ever, and within seconds nothing works any " +
    "more. A spanning tree on all gear of the loop blocks one port.",
  reads: READS,
  find: (index): Found<Circle>[] =>
    index.derived(LOOPS).map(({ ports, vids, devices }) => ({
      subjects: ports.map((id) => ({ kind: "port", id })),
      data: { ports, vids, devices },
    })),
  describe: ({ ports, vids }, index) =>
    `The cable between ${listed(ports.map((id) => nameOf(index, "port", id)))} ` +
    `closes a loop in ${vlans(vids)}, and nothing on it blocks.`,
  repairs: ({ ports, devices }, index) => breakLoop(index, devices, index.linkAt(ports[0] ?? "")?.id),
});

interface OnPort {
  readonly port: string;
  readonly far: string;
}

const runsTree = (index: PlanIndex, port: Port): boolean =>
  index.plan.device.get(port.device)?.tree.kind !== "none";
export const edgeOnUplink = check<OnPort>({
  code: "edge-on-uplink",
  severity: "warn",
  family: "guards",
  title: "A port that leads to other gear is set as an edge port",
  why:
    "An edge port forwards at once: until it hears the other " +
    "end, a loop is open. With a BPDU guard it is shut instead.",
  reads: READS,
  find: (index): Found<OnPort>[] =>
    betweenBridges(index)
      .filter(
        ({ port, far }) =>
          port.guards.edge && !port.guards.bpduGuard && runsTree(index, port) && runsTree(index, far),
      )
      .map(({ port, far }) => ({
        subjects: [{ kind: "port", id: port.id }],
        data: { port: port.id, far: far.id },
      })),
  describe: ({ port, far }, index) =>
    `${nameOf(index, "port", port)} is an edge port and leads to ${nameOf(index, "port", far)}.`,
  repairs: ({ port }, index) => [
    {
      label: `Take the edge setting off ${nameOf(index, "port", port)}`,
      planner: "set-guard",
      args: { port, guard: "edge" },
      edit: (edits) => patchGuards(edits, port, { edge: false }),
    },
  ],
});

export const guardShutsCable = check<OnPort>({
  code: "guard-shuts-cable",
  severity: "stop",
  family: "guards",
  title: "A BPDU guard shuts a cable between gear",
  why:
    "The guard switches a port off as soon as it hears a spanning " +
    "tree: right towards end devices, wrong towards switches.",
  reads: READS,
  find: (index): Found<OnPort>[] => {
    const { shut } = index.derived(TREE);
    return shut.size === 0
      ? []
      : betweenBridges(index)
          .filter(({ port }) => shut.has(port.id))
          .map(({ port, far }) => ({
            subjects: [{ kind: "port", id: port.id }],
            data: { port: port.id, far: far.id },
          }));
  },
  describe: ({ port, far }, index) =>
    `${nameOf(index, "port", port)} has a BPDU guard and hears ` +
    `the tree of ${nameOf(index, "port", far)}: it is shut.`,
  repairs: ({ port }, index) => [
    {
      label: `Take the BPDU guard off ${nameOf(index, "port", port)}`,
      planner: "set-guard",
      args: { port, guard: "bpduGuard" },
      edit: (edits) => patchGuards(edits, port, { bpduGuard: false, edge: false }),
    },
  ],
});
