import { formatAddress } from "../../address";
import { nameOf, type Device, type Interface, type PlanIndex, type Segment } from "../../plan";
import type { Sight } from "../sight";
import { edited, type Suspect } from "../suspect";
import { scopeSuspects, secondServer, seenAtServer } from "./scopes";

function relaySuspect(index: PlanIndex, { id, device }: Interface, segment: Segment): Suspect {
  const name = nameOf(index, "device", device);
  return edited(
    {
      id: `relay ${id}`,
      kind: "relay",
      words: `${name} relays no DHCP from ${segment.name}`,
      mend: `Enter the relay for ${segment.name} on ${name}, and save.`,
      subjects: [
        { kind: "interface", id },
        { kind: "segment", id: segment.id },
      ],
      seenAt: [{ on: "device", device }],
    },
    (edits) => edits.patch("interface", id, { relayTo: null }),
  );
}

function legSuspect(index: PlanIndex, { id, device, addresses4 }: Interface, segment: Segment): Suspect {
  const name = nameOf(index, "device", device);
  const own = addresses4.map(formatAddress).join(", ");
  return edited(
    {
      id: `leg ${id}`,
      kind: "gear",
      words: `${name} has no address in ${segment.name}`,
      mend: `Enter ${own} on ${name} for ${segment.name}, and save.`,
      subjects: [
        { kind: "interface", id },
        { kind: "device", id: device },
        { kind: "segment", id: segment.id },
      ],
      seenAt: [{ on: "device", device }],
    },
    (edits) => edits.patch("interface", id, { addresses4: [] }),
  );
}

const withoutGateway = (index: PlanIndex, { id, name }: Segment): Suspect =>
  edited(
    {
      id: `no router ${id}`,
      kind: "given",
      words: `Nobody in ${name} is given a gateway`,
      mend: `Enter the gateway of ${name} in its DHCP scope, and save.`,
      subjects: [{ kind: "segment", id }],
      seenAt: index.scopesOf(id).flatMap(seenAtServer),
    },
    (edits) => edits.patch("segment", id, { gatewayInterface: null }),
  );

function segmentSuspects(index: PlanIndex, segment: Segment, devices: readonly Device[]): Suspect[] {
  const legs = index.interfacesIn(segment.id);
  const scopes = index.scopesOf(segment.id);
  return [
    ...scopes.flatMap((scope) => scopeSuspects(index, scope, devices)),
    ...(scopes.length === 0 ? [] : [secondServer(index, segment.id)]),
    ...legs.filter(({ relayTo }) => relayTo !== null).map((leg) => relaySuspect(index, leg, segment)),
    ...(segment.gatewayInterface === null ? [] : [withoutGateway(index, segment)]),
    ...legs.filter(({ addresses4 }) => addresses4.length > 0).map((leg) => legSuspect(index, leg, segment)),
  ];
}

/** What can be wrong with addresses, who gives them and who routes them. */
export function addressingSuspects(index: PlanIndex, sight: Sight): Suspect[] {
  const devices = [...sight.devices].flatMap((id) => index.plan.device.get(id) ?? []);
  return [...sight.segments].flatMap((id) => {
    const segment = index.plan.segment.get(id);
    return segment === undefined ? [] : segmentSuspects(index, segment, devices);
  });
}
