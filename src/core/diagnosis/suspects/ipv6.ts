import { nameOf, type Device, type PlanIndex, type ProbeQuestion, type Segment } from "../../plan";
import type { Sight } from "../sight";
import { edited, type Suspect } from "../suspect";

/** Nobody tells the clients of a segment their subnet. */
function noAdvertising(index: PlanIndex, { id, name }: Segment, device: string): Suspect {
  const router = nameOf(index, "device", device);
  return edited(
    {
      id: `no advertising ${id}`,
      kind: "advertising",
      words: `${router} advertises no IPv6 in ${name}`,
      mend: `Switch router advertisements for ${name} on ${router} on, and save.`,
      subjects: [
        { kind: "segment", id },
        { kind: "device", id: device },
      ],
      seenAt: [{ on: "device", device }],
    },
    (edits) => edits.patch("segment", id, { advertise: "none" }),
  );
}

/** A guard that drops every router's word (RFC 6105). */
function routerGuard(index: PlanIndex, { id, name }: Device): Suspect {
  const vids = [...new Set(index.portsOf(id).flatMap(({ untagged, tagged }) => [...untagged, ...tagged]))];
  return edited(
    {
      id: `router guard ${id}`,
      kind: "guard",
      words: `The guard of router advertisements on ${name} trusts no port`,
      mend: `Trust the port of ${name} that leads to the router for its advertisements, and save.`,
      subjects: [{ kind: "device", id }],
      seenAt: [{ on: "device", device: id }],
    },
    (edits, now) => {
      const { protections } = edits.need("device", id);
      edits.patch("device", id, { protections: { ...protections, routerGuard: vids } });
      for (const port of now.portsOf(id))
        edits.patch("port", port.id, { guards: { ...port.guards, raTrust: false } });
    },
  );
}

/** What can be wrong with IPv6 addresses; nothing where nobody asked for one. */
export function ipv6Suspects(index: PlanIndex, sight: Sight, questions: readonly ProbeQuestion[]): Suspect[] {
  if (!questions.some(({ family }) => family === 6)) return [];
  const segments = [...sight.segments].flatMap((id) => index.plan.segment.get(id) ?? []);
  const devices = [...sight.devices].flatMap((id) => index.plan.device.get(id) ?? []);
  return [
    ...segments.flatMap((segment) => {
      const leg = index.gatewayOf(segment);
      const isTold = segment.advertise !== "none" && segment.prefixes6.length > 0;
      return leg === undefined || !isTold ? [] : [noAdvertising(index, segment, leg.device)];
    }),
    ...devices.filter(({ bridging }) => bridging === "vlan").map((device) => routerGuard(index, device)),
  ];
}
