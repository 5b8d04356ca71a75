import { byNaturalText } from "../../kernel";
import { nameOf, segmentsOfSsid, type Device, type Host, type PlanIndex, type Segment } from "../../plan";
import { classify, FABRIC } from "../../fabric";
import { check, type Found } from "../check";
import { type Repair, listed } from "../../repairs";

interface Elsewhere {
  readonly host: string;
  readonly segment: string;
  readonly landed: readonly string[];
}

/**
 * The segments that a frame from a port's cable lands in: where gear with VLANs takes it in, and those of
 * routers on the same wire.
 */
function segmentsAt(index: PlanIndex, port: string, tag: Host["tag"]): Segment[] {
  const fabric = index.derived(FABRIC);
  const wire = fabric.wires[fabric.wireOf[fabric.portNumber.get(port) ?? -1] ?? -1];
  if (wire === undefined) return [];
  const bridged = wire.bridgePorts.flatMap((number) => {
    const entity = fabric.ports[number];
    const vid = entity === undefined ? null : classify(entity, tag);
    return vid === null
      ? []
      : (index.segmentOn(fabric.devices[fabric.deviceOf[number] ?? -1]?.domain ?? null, vid) ?? []);
  });
  const routed = wire.routedPorts.flatMap((number) =>
    (index.groups("interfacesByPort").get(fabric.ports[number]?.id ?? "") ?? []).flatMap(
      (leg) => index.plan.segment.get(leg.segment ?? "") ?? [],
    ),
  );
  return [...new Set([...bridged, ...routed])];
}

/**
 * Whether the device's own VLANs say it already: gear with VLANs in the segment's own domain, where another
 * finding looks.
 */
function isSaidByVlans(index: PlanIndex, device: Device, segment: Segment): boolean {
  const domain = segment.vlan === null ? null : (index.plan.vlan.get(segment.vlan)?.domain ?? null);
  return (
    device.bridging === "vlan" && domain !== null && (device.domain === null || device.domain === domain)
  );
}

/** A host, where it belongs, and the segments of what it hangs on. */
interface Hanging {
  readonly host: Host;
  readonly segment: Segment;
  readonly landed: readonly Segment[];
}

const belonging = (
  index: PlanIndex,
  hosts: readonly Host[],
  landed: (host: Host, segment: Segment) => readonly Segment[],
): Hanging[] =>
  hosts.flatMap((host) => {
    const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
    return segment === undefined ? [] : [{ host, segment, landed: landed(host, segment) }];
  });

/**
 * Hosts on cables where VLANs do not say it: on gear that knows none, at routers' own ports, and on gear of
 * another domain, of which a plan with one has none.
 */
function* byCable(index: PlanIndex): Generator<Hanging> {
  const { plan } = index;
  const oneDomain = plan.domain.size < 2 && ![...plan.segment.values()].some(({ vlan }) => vlan === null);
  for (const device of plan.device.values()) {
    if (oneDomain && device.bridging === "vlan") continue;
    for (const port of index.portsOf(device.id))
      yield* belonging(index, index.groups("hostsByPort").get(port.id) ?? [], (host, segment) =>
        isSaidByVlans(index, device, segment) ? [] : segmentsAt(index, port.id, host.tag),
      );
  }
}

function* byAir(index: PlanIndex): Generator<Hanging> {
  for (const ssid of index.plan.ssid.values()) {
    const landed = segmentsOfSsid(index, ssid);
    yield* belonging(index, index.groups("hostsBySsid").get(ssid.id) ?? [], () => landed);
  }
}

export const hostInOtherNetwork = check<Elsewhere>({
  code: "host-in-other-network",
  severity: "stop",
  family: "ports",
  title: "A device hangs in another network than it belongs in",
  why:
    "It gets an address of the network it hangs in and is on the " +
    "wrong side of the walls, or with a fixed address reaches nobody.",
  reads: [...FABRIC.reads, "segment", "vlan", "interface", "ssid", "domain"],
  find: (index) =>
    [...byCable(index), ...byAir(index)].flatMap(({ host, segment, landed }): Found<Elsewhere>[] => {
      if (landed.length === 0 || landed.includes(segment)) return [];
      const ids = [...landed].sort((a, b) => byNaturalText(a.name, b.name)).map(({ id }) => id);
      return [
        {
          subjects: [{ kind: "host", id: host.id }],
          data: { host: host.id, segment: segment.id, landed: ids },
        },
      ];
    }),
  describe: ({ host, segment, landed }, index) =>
    `${nameOf(index, "host", host)} belongs in ${nameOf(index, "segment", segment)} ` +
    `and hangs in ${listed(landed.map((id) => nameOf(index, "segment", id)))}.`,
  repairs: ({ host, segment, landed }, index): Repair[] => {
    const [name, known] = [nameOf(index, "host", host), index.plan.host.get(host)];
    const [other] = landed;
    const unplug: Repair = {
      label: `Take ${name} out there, to be plugged into ${nameOf(index, "segment", segment)}`,
      planner: "edit-host",
      args: { host, attachment: "unplaced" },
      edit: (edits) => edits.patch("host", host, { attachment: { at: "unplaced" } }),
    };
    if (other === undefined || known?.manner !== "dynamic" || landed.length > 1) return [unplug];
    return [
      unplug,
      {
        label: `Let ${name} belong in ${nameOf(index, "segment", other)}`,
        planner: "edit-host",
        args: { host, segment: other },
        edit: (edits) => edits.patch("host", host, { segment: other }),
      },
    ];
  },
});
