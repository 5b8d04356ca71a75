import { formatAddress } from "../../address";
import { KINDS, nameOf, PlanEdits, type Forward, type PlanIndex, type Segment } from "../../plan";
import { addLeg, legAddressIn, usualGateway, WAY_WORDS } from "../../planners";
import { forwardHolds } from "../../policy";
import type { Repair } from "../../repairs";
import { linesOf } from "../../routing";
import { asItIs, wayRepair, waysIn } from "../../ways-in";
import { check, type Found } from "../check";

interface WishData {
  readonly wish: string;
  readonly says: string;
}

export const wishCannot = check<WishData>({
  code: "wish-cannot",
  severity: "warn",
  family: "gateway",
  title: "What is to be reached from outside is not, by the way that was chosen",
  why: "A packet was sent from outside, by each line: none of them gets there.",
  // A packet can meet anything on its way.
  reads: KINDS,
  find: (index) =>
    [...index.plan.wish.values()].flatMap((wish): Found<WishData>[] => {
      const best = asItIs(index, wish);
      return best === null || best.verdict !== "cannot"
        ? []
        : [
            {
              subjects: [
                { kind: "wish", id: wish.id },
                { kind: "host", id: wish.host },
              ],
              data: { wish: wish.id, says: best.says },
            },
          ];
    }),
  describe: ({ wish, says }, index) => {
    const own = index.plan.wish.get(wish);
    const way = own === undefined ? "" : WAY_WORDS[own.way];
    return `${nameOf(index, "wish", wish)} is not reached by ${way}: ${says}`;
  },
  repairs: ({ wish: id }, index) => {
    const wish = index.plan.wish.get(id);
    if (wish === undefined) return [];
    return waysIn(index, wish).flatMap((way) => wayRepair(wish, way) ?? []);
  },
});

interface TunnelData {
  readonly segment: string;
}

const tunnelsOf = ({ plan }: PlanIndex): Segment[] =>
  [...plan.segment.values()].filter(({ tunnel }) => tunnel !== null);

export const tunnelWithoutEnd = check<TunnelData>({
  code: "tunnel-without-end",
  severity: "warn",
  family: "gateway",
  title: "A tunnel ends at no device with a line",
  why: "Somebody has to answer it from outside, at a line's address.",
  reads: ["segment", "interface", "device", "line", "port"],
  find: (index) =>
    tunnelsOf(index).flatMap((segment): Found<TunnelData>[] => {
      const leg = index.gatewayOf(segment);
      const ends = leg !== undefined && linesOf(index, leg.device).length > 0;
      return ends ? [] : [{ subjects: [{ kind: "segment", id: segment.id }], data: { segment: segment.id } }];
    }),
  describe: ({ segment }, index) => {
    const own = index.plan.segment.get(segment);
    const leg = own === undefined ? undefined : index.gatewayOf(own);
    return leg === undefined
      ? `The tunnel ${nameOf(index, "segment", segment)} ends at no device.`
      : `The tunnel ${nameOf(index, "segment", segment)} ends at ${nameOf(index, "device", leg.device)}, ` +
          "which has no line of its own.";
  },
  repairs: ({ segment: id }, index) => {
    const segment = index.plan.segment.get(id);
    const device = usualGateway(new PlanEdits(index.plan));
    const address = segment === undefined ? null : legAddressIn(index, segment);
    if (segment === undefined || device === undefined || linesOf(index, device.id).length === 0) return [];
    const leg = index.gatewayOf(segment);
    const edit: Repair["edit"] = (edits, ids) => {
      if (leg !== undefined) {
        edits.patch("interface", leg.id, { device: device.id });
        return null;
      }
      if (address === null) return `${segment.name} has no IPv4 subnet; write one first.`;
      const before = new Set(edits.all("interface").map((leg) => leg.id));
      const refusal = addLeg({ edits, ids }, device.id, id, formatAddress(address));
      const made = edits.all("interface").find((leg) => !before.has(leg.id));
      if (made !== undefined) edits.patch("segment", id, { gatewayInterface: made.id });
      return refusal;
    };
    return [
      {
        label: `Let ${segment.name} end at ${device.name}`,
        planner: "write-tunnel",
        args: { segment: id },
        edit,
      },
    ];
  },
});

interface TakenData extends TunnelData {
  readonly forward: string;
}

const takes = ({ tunnel }: Segment, { line, protocol, ports: [low, high] }: Forward): boolean =>
  tunnel !== null &&
  (tunnel.line === null || tunnel.line === line) &&
  tunnel.protocol === protocol &&
  low <= tunnel.port &&
  tunnel.port <= high;

export const tunnelPortForwarded = check<TakenData>({
  code: "tunnel-port-forwarded",
  severity: "stop",
  family: "gateway",
  title: "A forward takes the port at which a tunnel is answered",
  why: "What is meant for the gateway goes on to a device inside, and the tunnel never comes up.",
  reads: ["segment", "forward"],
  find: (index) =>
    tunnelsOf(index).flatMap((segment) =>
      [...index.plan.forward.values()]
        .filter((forward) => forwardHolds(index, forward) && takes(segment, forward))
        .map((forward): Found<TakenData> => ({
          subjects: [
            { kind: "segment", id: segment.id },
            { kind: "forward", id: forward.id },
          ],
          data: { segment: segment.id, forward: forward.id },
        })),
    ),
  describe: ({ segment, forward }, index) => {
    const tunnel = index.plan.segment.get(segment)?.tunnel;
    return (
      `The tunnel ${nameOf(index, "segment", segment)} is answered at ` +
      `${tunnel?.protocol.toUpperCase() ?? ""} ${tunnel?.port ?? ""}, which the forward ` +
      `${nameOf(index, "forward", forward)} sends on to a device inside.`
    );
  },
  repairs: ({ segment, forward }, index) => {
    const own = index.plan.segment.get(segment);
    const next = own === undefined ? null : freePortFor(index, own);
    const move: Repair[] =
      own === undefined || own.tunnel === null || next === null
        ? []
        : [
            {
              label: `Answer ${own.name} at ${own.tunnel.protocol.toUpperCase()} ${next}`,
              planner: "write-tunnel",
              args: { segment, port: next },
              edit: (edits) => {
                const tunnel = edits.need("segment", segment).tunnel;
                if (tunnel !== null) edits.patch("segment", segment, { tunnel: { ...tunnel, port: next } });
              },
            },
          ];
    return [
      ...move,
      {
        label: `Remove the forward ${nameOf(index, "forward", forward)}`,
        planner: "remove-forwards",
        args: { forwards: [forward] },
        edit: (edits) => edits.remove("forward", forward),
      },
    ];
  },
});

/** The next port at which nothing is forwarded on the tunnel's lines; null without one. */
function freePortFor(index: PlanIndex, segment: Segment): number | null {
  const { tunnel } = segment;
  if (tunnel === null) return null;
  const forwards = [...index.plan.forward.values()];
  for (let port = tunnel.port + 1; port <= 65_535; port += 1)
    if (!forwards.some((forward) => takes({ ...segment, tunnel: { ...tunnel, port } }, forward))) return port;
  return null;
}
