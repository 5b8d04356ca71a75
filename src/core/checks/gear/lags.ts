import { equal } from "../../kernel";
import { nameOf, type Lag, type PlanIndex, type Port } from "../../plan";
import { makeLag, setLagMode } from "../../planners";
import { localCheck, type Found } from "../check";
import { type Repair, listed } from "../../repairs";

interface LagData {
  readonly lag: string;
  readonly what: "speed" | "membership" | "apart" | "no-lag" | "modes";
  readonly ports: readonly string[];
}

const membersOf = (index: PlanIndex, lag: string): Port[] =>
  [...(index.groups("portsByLag").get(lag) ?? [])].sort((a, b) => a.position - b.position);
const carried = ({ pvid, untagged, tagged, admit, enabled }: Port) => ({
  pvid,
  untagged,
  tagged,
  admit,
  enabled,
});

function wrongWith(index: PlanIndex, lag: Lag): LagData | null {
  const members = membersOf(index, lag.id);
  const [first] = members;
  if (first === undefined) return null;
  const fault = (what: LagData["what"], ports: readonly Port[]): LagData => ({
    lag: lag.id,
    what,
    ports: ports.map((port) => port.id),
  });
  const slower = members.filter((port) => port.speedMbps !== first.speedMbps);
  if (slower.length > 0) return fault("speed", slower);
  const others = members.filter((port) => !equal(carried(port), carried(first)));
  if (others.length > 0) return fault("membership", others);
  const peers = members.flatMap((port) => index.peerOf(port.id) ?? []);
  if (peers.length === 0) return null;
  if (new Set(peers.map((port) => port.device)).size > 1) return fault("apart", peers);
  const lags = new Set(peers.map((port) => port.lag));
  const [far] = lags;
  if (lags.size > 1 || far === null || far === undefined) return fault("no-lag", peers);
  const other = index.plan.lag.get(far);
  const works =
    other !== undefined &&
    (lag.mode === "static"
      ? other.mode === "static"
      : other.mode !== "static" && (lag.mode === "active" || other.mode === "active"));
  return works ? null : fault("modes", peers);
}

const lagsOfPort = (index: PlanIndex, port: string): string[] =>
  [index.plan.port.get(port)?.lag, index.peerOf(port)?.lag].flatMap((lag) => lag ?? []);

export const lagEndsDiffer = localCheck<LagData, "lag">({
  code: "lag-ends-differ",
  severity: "stop",
  family: "hardware",
  title: "The ends of a LAG don't agree",
  why:
    "Several cables that only one end takes for one are a " +
    "loop, or half of the frames are lost (IEEE 802.1AX).",
  reads: ["lag", "port", "link"],
  of: "lag",
  touched: (index, change) => {
    const sides = [change.before, change.after];
    const far = (lag: string) => [
      lag,
      ...membersOf(index, lag).flatMap((port) => index.peerOf(port.id)?.lag ?? []),
    ];
    switch (change.kind) {
      case "lag":
        return far(change.id);
      case "port":
        return [
          ...lagsOfPort(index, change.id),
          ...sides.flatMap((port) =>
            port !== null && "lag" in port && port.lag !== null ? far(port.lag) : [],
          ),
        ];
      case "link":
        return sides.flatMap((link) =>
          link !== null && "a" in link ? [...lagsOfPort(index, link.a), ...lagsOfPort(index, link.b)] : [],
        );
      default:
        return "all";
    }
  },
  findAt: (index, lag): Found<LagData>[] => {
    const data = wrongWith(index, lag);
    return data === null
      ? []
      : [
          {
            subjects: [
              { kind: "lag", id: lag.id },
              ...data.ports.map((id) => ({ kind: "port" as const, id })),
            ],
            data,
          },
        ];
  },
  describe: ({ lag, what, ports }, index) => {
    const name = nameOf(index, "lag", lag);
    const names = listed(ports.map((id) => nameOf(index, "port", id)));
    switch (what) {
      case "speed":
        return (
          `${name} has ports of different speeds: ${names} ` +
          `${ports.length === 1 ? "differs" : "differ"} from its first.`
        );
      case "membership":
        return (
          `${name}: ${names} ${ports.length === 1 ? "carries" : "carry"} ` +
          "something else than its first port."
        );
      case "apart":
        return `The cables of ${name} end on different devices: ${names}.`;
      case "no-lag":
        return `${name} ends at ${names}, which ${ports.length === 1 ? "is" : "are"} not one LAG.`;
      case "modes":
        return (
          `${name} and its far end don't talk: one of them has ` +
          "to be active, and both or neither use the protocol."
        );
    }
  },
  repairs: ({ lag, what, ports }, index): Repair[] => {
    const entity = index.plan.lag.get(lag);
    const [first] = membersOf(index, lag);
    if (entity === undefined || first === undefined) return [];
    switch (what) {
      case "speed":
        return [
          {
            label: "Take the slower ports out of the LAG",
            planner: "leave-lag",
            args: { ports },
            edit: (edits) => {
              for (const id of ports) edits.patch("port", id, { lag: null });
            },
          },
        ];
      case "membership":
        return [
          {
            label: `Let all its ports carry what port ${first.label} does`,
            planner: "equal-lag",
            args: { lag },
            edit: (edits) => {
              for (const id of ports) edits.patch("port", id, carried(edits.need("port", first.id)));
            },
          },
        ];
      case "no-lag": {
        const free = ports.filter((id) => index.plan.port.get(id)?.lag === null);
        return free.length !== ports.length || ports.length < 2
          ? []
          : [
              {
                label: "Make one LAG of the far ports",
                planner: "make-lag",
                args: { ports },
                edit: (edits, ids) =>
                  makeLag({ edits, index, ids }, ports, entity.mode === "passive" ? "active" : entity.mode),
              },
            ];
      }
      case "modes": {
        const far = index.plan.port.get(ports[0] ?? "")?.lag ?? null;
        return far === null
          ? []
          : [
              {
                label: "Make both active",
                planner: "set-lag-mode",
                args: { lags: [lag, far] },
                edit: (edits) => {
                  for (const id of [lag, far]) setLagMode({ edits }, id, "active");
                },
              },
            ];
      }
      case "apart":
        return [];
    }
  },
});
