import { byText, DisjointSet } from "../../kernel";
import { nameOf, type Link, type PlanIndex, type Port } from "../../plan";
import { modeOf } from "../../fabric";
import { breakLoop } from "./break-loop";
import { check, type Found } from "../check";
import { listed } from "../../repairs";

interface Circle {
  readonly link: string;
  readonly ports: readonly string[];
}

interface End {
  readonly port: Port;
  readonly undecided: boolean;
}

/**
 * An end that new gear lets everything out of: an undecided port of a switch with VLANs, or any of one
 * without. Null for a port whose VLANs are decided, that routes, is shut or bundled, and for gear that runs a
 * spanning tree, which would block one end of the loop.
 */
function openEnd(index: PlanIndex, id: string): End | null {
  const port = index.plan.port.get(id);
  const device = index.plan.device.get(port?.device ?? "");
  if (
    port === undefined ||
    device === undefined ||
    !port.enabled ||
    port.lag !== null ||
    device.tree.kind !== "none" ||
    index.groups("interfacesByPort").has(id)
  )
    return null;
  if (device.bridging === "plain") return { port, undecided: false };
  return device.bridging === "vlan" && modeOf(port) === "undecided" ? { port, undecided: true } : null;
}

interface Open {
  readonly link: Link;
  readonly ends: readonly [End, End];
}

const openLink = (index: PlanIndex, link: Link): Open[] => {
  const [a, b] = [openEnd(index, link.a), openEnd(index, link.b)];
  return a === null || b === null ? [] : [{ link, ends: [a, b] }];
};

export const loopThroughUndecided = check<Circle>({
  code: "loop-through-undecided",
  severity: "stop",
  family: "guards",
  title: "Ports that nobody decided form a loop",
  why:
    "In the plan such ports carry nothing, but new gear lets everything " +
    "out of them: plugged in as it comes, a broadcast goes round for ever.",
  reads: ["link", "port", "device", "interface"],
  find: (index): Found<Circle>[] => {
    const numbers = new Map([...index.plan.device.keys()].map((id, i) => [id, i]));
    const joined = new DisjointSet(numbers.size);
    const open = [...index.plan.link.values()].flatMap((link) => openLink(index, link));
    const undecided = ({ ends }: Open) => ends.some((end) => end.undecided);
    // Cables between gear without VLANs first: a loop of those alone is another finding.
    return open
      .sort((a, b) => Number(undecided(a)) - Number(undecided(b)) || byText(a.link.id, b.link.id))
      .flatMap((open): Found<Circle>[] => {
        const [a, b] = open.ends.map(({ port }) => numbers.get(port.device) ?? 0);
        if (a === undefined || b === undefined) return [];
        const closes = joined.rootOf(a) === joined.rootOf(b);
        joined.join(a, b);
        if (!closes || !undecided(open)) return [];
        const ports = open.ends.map(({ port }) => port.id);
        return [
          {
            subjects: ports.map((id) => ({ kind: "port" as const, id })),
            data: { link: open.link.id, ports },
          },
        ];
      });
  },
  describe: ({ ports }, index) =>
    `The cable between ${listed(ports.map((id) => nameOf(index, "port", id)))} closes ` +
    "a loop of ports that are in no VLAN yet; new gear lets everything out of them.",
  repairs: ({ link, ports }, index) =>
    breakLoop(
      index,
      ports.flatMap((id) => index.plan.port.get(id)?.device ?? []),
      link,
    ),
});
