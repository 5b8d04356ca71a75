import { byText } from "../../kernel";
import { nameOf, type Device, type Host, type PlanIndex, type Port, type Vid } from "../../plan";
import { modeOf, isConsistent } from "../../fabric";
import { parkPorts, setAccess } from "../../planners";
import { localCheck, type Found } from "../check";
import { type Repair, counted, listed } from "../../repairs";
import { portsTouched } from "../touched";

const vidsOf = (port: Port): Vid[] => [
  ...new Set([...(port.pvid === null ? [] : [port.pvid]), ...port.untagged, ...port.tagged]),
];

interface Undefined {
  readonly port: string;
  readonly vids: readonly Vid[];
  readonly domain: string;
}

export const portVlanUndefined = localCheck<Undefined, "port">({
  code: "port-vlan-undefined",
  severity: "stop",
  family: "ports",
  title: "A port is in a VLAN that the plan does not define",
  why: "Either the number is a slip or a VLAN was forgotten; a switch that does not know it drops its frames.",
  reads: ["port", "vlan", "device"],
  of: "port",
  touched: portsTouched,
  findAt: (index, port): Found<Undefined>[] => {
    const domain = index.plan.device.get(port.device)?.domain ?? null;
    if (domain === null || !port.enabled) return [];
    const isUnknown = (vid: Vid) => index.vlanOf(domain, vid) === undefined;
    const pvidIsKnown = port.pvid === null || !isUnknown(port.pvid);
    // Nearly every port is untagged in its PVID alone.
    const [only] = port.untagged;
    const isUsual = port.untagged.length === 1 && only === port.pvid;
    if (pvidIsKnown && (isUsual || !port.untagged.some(isUnknown)) && !port.tagged.some(isUnknown)) return [];
    return [
      {
        subjects: [{ kind: "port", id: port.id }],
        data: { port: port.id, vids: vidsOf(port).filter(isUnknown), domain },
      },
    ];
  },
  describe: ({ port, vids }, index) =>
    `${nameOf(index, "port", port)} is in VLAN ${listed(vids.map(String))}, which the plan does not define.`,
  repairs: ({ port, vids, domain }) => [
    {
      label: `Take VLAN ${listed(vids.map(String))} off this port`,
      planner: "drop-vlans",
      args: { port, vids },
      edit: (edits) => {
        const { pvid, untagged, tagged } = edits.need("port", port);
        const keep = (vid: Vid) => !vids.includes(vid);
        edits.patch("port", port, {
          pvid: pvid !== null && keep(pvid) ? pvid : null,
          untagged: untagged.filter(keep),
          tagged: tagged.filter(keep),
        });
      },
    },
    {
      label: `Define VLAN ${listed(vids.map(String))}`,
      planner: "define-vlans",
      args: { domain, vids },
      edit: (edits, ids) => {
        for (const vid of vids)
          edits.put("vlan", { id: ids(), domain, vid, name: `VLAN ${vid}`, purpose: "segment" });
      },
    },
  ],
});

interface Undecided {
  readonly device: string;
  readonly ports: readonly string[];
}

export const portsUndecided = localCheck<Undecided, "device">({
  code: "ports-to-decide",
  severity: "warn",
  family: "ports",
  title: "Ports are in no VLAN yet",
  why:
    "New gear lets every VLAN out of every port. A port " +
    "nobody decided stays open, or dead for whoever needs it.",
  reads: ["port", "device", "interface"],
  of: "device",
  touched: (index, change) => {
    // A leg can name a port of another device than its own: as found, a mistake, and still a routed port there.
    if (change.kind === "interface")
      return [change.before, change.after].flatMap(
        (leg) => index.plan.port.get(leg?.port ?? "")?.device ?? [],
      );
    return [change.before, change.after].flatMap((entity) =>
      entity !== null && "device" in entity && typeof entity.device === "string" ? [entity.device] : [],
    );
  },
  findAt: (index, device): Found<Undecided>[] => {
    if (device.bridging !== "vlan") return [];
    const all = index.groups("portsByDevice").get(device.id) ?? [];
    if (!all.some((port) => modeOf(port) === "undecided")) return [];
    const ports = index
      .portsOf(device.id)
      .filter((port) => modeOf(port) === "undecided" && !index.groups("interfacesByPort").has(port.id));
    return ports.length === 0
      ? []
      : [
          {
            subjects: [{ kind: "device", id: device.id }],
            data: { device: device.id, ports: ports.map((p) => p.id) },
          },
        ];
  },
  describe: ({ device, ports }, index) => {
    const labels = ports.map((id) => index.plan.port.get(id)?.label ?? "");
    return (
      `${nameOf(index, "device", device)}: ${counted(ports.length, "port is", "ports are")} in ` +
      `no VLAN: ${labels.length > 8 ? `${labels.slice(0, 8).join(", ")} …` : listed(labels)}.`
    );
  },
  repairs: ({ ports }, index) => {
    const free = ports.filter((id) => index.linkAt(id) === undefined && index.hostsAt(id).length === 0);
    return free.length === 0
      ? []
      : [
          {
            label: `Switch ${counted(free.length, "unused port", "unused ports")} off`,
            planner: "park-ports",
            args: { ports: free },
            edit: (edits) => parkPorts(edits, free),
          },
        ];
  },
});

interface TrunkToHost {
  readonly port: string;
  readonly host: string;
}

export const trunkToOneHost = localCheck<TrunkToHost, "port">({
  code: "trunk-to-one-host",
  severity: "warn",
  family: "ports",
  title: "A trunk ends at a single device",
  why: "Whoever unplugs that device and plugs in a laptop can join every VLAN of the trunk.",
  reads: ["port", "host", "link", "segment", "vlan"],
  of: "port",
  touched: portsTouched,
  findAt: (index, port): Found<TrunkToHost>[] => {
    if (port.tagged.length === 0 || modeOf(port) !== "trunk") return [];
    const hosts = index.groups("hostsByPort").get(port.id) ?? [];
    const host = hosts[0];
    if (host === undefined || hosts.length !== 1 || index.linkAt(port.id) !== undefined) return [];
    if (host.tag !== null && port.tagged.length === 1 && port.tagged[0] === host.tag) return [];
    return [
      {
        subjects: [
          { kind: "port", id: port.id },
          { kind: "host", id: host.id },
        ],
        data: { port: port.id, host: host.id },
      },
    ];
  },
  describe: ({ port, host }, index) => {
    const entity = index.plan.port.get(port);
    return (
      `${nameOf(index, "port", port)} is a trunk with ` +
      `${counted(entity?.tagged.length ?? 0, "tagged VLAN", "tagged VLANs")}, ` +
      `but only ${nameOf(index, "host", host)} is plugged in there.`
    );
  },
  repairs: ({ port, host }, index) => accessRepair(index, port, host),
});

/** Makes the port an access port in the VLAN of the host's segment. */
function accessRepair(index: PlanIndex, port: string, host: string): Repair[] {
  const segmentId = index.plan.host.get(host)?.segment ?? null;
  const segment = segmentId === null ? undefined : index.plan.segment.get(segmentId);
  const vlan =
    segment?.vlan === null || segment === undefined ? undefined : index.plan.vlan.get(segment.vlan);
  if (segment === undefined || vlan === undefined) return [];
  return [
    {
      label: `Make it an access port in ${segment.name} (${vlan.vid})`,
      planner: "paint-access",
      args: { port, vid: vlan.vid },
      edit: (edits) => setAccess(edits, [port], vlan.vid),
    },
  ];
}

interface WrongVlan {
  readonly port: string;
  readonly host: string;
  readonly wanted: number;
  readonly got: number | null;
}

/** Where a host lands that belongs in another VLAN; null where all is well or nothing is wanted. */
function wrongVlanOf(
  index: PlanIndex,
  host: Host,
  { port, device }: { readonly port: Port; readonly device: Device },
): WrongVlan | null {
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  const vlan = segment === undefined || segment.vlan === null ? undefined : index.plan.vlan.get(segment.vlan);
  // Numbers of two domains say nothing of one another: that is another network, and another finding.
  if (vlan === undefined || (device.domain !== null && vlan.domain !== device.domain)) return null;
  const got = host.tag ?? port.pvid;
  const carried = host.tag === null || port.tagged.includes(host.tag);
  if (got === vlan.vid && carried) return null;
  return { port: port.id, host: host.id, wanted: vlan.vid, got: carried ? got : null };
}

export const hostInWrongVlan = localCheck<WrongVlan, "port">({
  code: "host-in-wrong-vlan",
  severity: "stop",
  family: "ports",
  title: "A device is plugged into a port of another VLAN",
  why: "It gets an address of the wrong segment, or with a fixed address reaches nobody.",
  reads: ["port", "host", "segment", "vlan", "device"],
  of: "port",
  touched: portsTouched,
  findAt: (index, port): Found<WrongVlan>[] => {
    const hosts = index.groups("hostsByPort").get(port.id);
    if (hosts === undefined || !port.enabled || modeOf(port) === "undecided") return [];
    const device = index.plan.device.get(port.device);
    if (device?.bridging !== "vlan") return [];
    const found: Found<WrongVlan>[] = [];
    for (const host of hosts) {
      const data = wrongVlanOf(index, host, { port, device });
      if (data === null) continue;
      found.push({
        subjects: [
          { kind: "port", id: port.id },
          { kind: "host", id: host.id },
        ],
        data,
      });
    }
    return found;
  },
  describe: ({ port, host, wanted, got }, index) => {
    const landed = got === null ? "its frames are dropped there" : `it lands in VLAN ${got}`;
    return (
      `${nameOf(index, "host", host)} belongs in VLAN ${wanted}, ` +
      `but at ${nameOf(index, "port", port)} ${landed}.`
    );
  },
  repairs: ({ port, host }, index) => accessRepair(index, port, host),
});

interface Inconsistent {
  readonly port: string;
}

export const portInconsistent = localCheck<Inconsistent, "port">({
  code: "port-lists-differ",
  severity: "warn",
  family: "ports",
  title: "A port is untagged in one VLAN and has the PVID of another",
  why:
    "What comes in untagged joins one VLAN and what goes out " +
    "untagged comes from another; traffic flows one way only.",
  reads: ["port"],
  of: "port",
  touched: () => [],
  findAt: (_index, port): Found<Inconsistent>[] =>
    port.enabled && !isConsistent(port)
      ? [{ subjects: [{ kind: "port", id: port.id }], data: { port: port.id } }]
      : [],
  describe: ({ port }, index) => {
    const entity = index.plan.port.get(port);
    return (
      `${nameOf(index, "port", port)} is untagged in ` +
      (entity?.untagged.length === 0 ? "no VLAN" : `VLAN ${listed((entity?.untagged ?? []).map(String))}`) +
      ", " +
      `but its PVID is ${entity?.pvid ?? "none"}.`
    );
  },
  repairs: ({ port }, index) => {
    const entity = index.plan.port.get(port);
    const choices = [
      ...new Set([
        ...(entity?.pvid === null || entity === undefined ? [] : [entity.pvid]),
        ...(entity?.untagged ?? []),
      ]),
    ];
    return choices.slice(0, 3).map((vid): Repair => ({
      label: `Make VLAN ${vid} both`,
      planner: "set-untagged-vlan",
      args: { port, vid },
      edit: (edits) =>
        edits.patch("port", port, {
          pvid: vid,
          untagged: [vid],
          tagged: edits.need("port", port).tagged.filter((t) => t !== vid),
        }),
    }));
  },
});

interface Shared {
  readonly port: string;
  readonly things: readonly string[];
}

export const portSharedTwice = localCheck<Shared, "port">({
  code: "port-used-twice",
  severity: "stop",
  family: "hardware",
  title: "Two things are plugged into one port",
  why: "A port takes one cable. A small switch or a phone between them has to be in the plan too.",
  reads: ["port", "host", "link"],
  of: "port",
  touched: portsTouched,
  findAt: (index, port): Found<Shared>[] => {
    const plugged = index.groups("hostsByPort").get(port.id);
    if (plugged === undefined) return [];
    const peer = index.peerOf(port.id);
    if (plugged.length + (peer === undefined ? 0 : 1) < 2) return [];
    const hosts = [...plugged].sort((a, b) => byText(a.id, b.id));
    const things = [
      ...hosts.map((h) => h.name),
      ...(peer === undefined ? [] : [nameOf(index, "port", peer.id)]),
    ];
    return [
      {
        subjects: [{ kind: "port", id: port.id }, ...hosts.map((h) => ({ kind: "host" as const, id: h.id }))],
        data: { port: port.id, things },
      },
    ];
  },
  describe: ({ port, things }, index) =>
    `${listed(things)} are all plugged into ${nameOf(index, "port", port)}, which takes one cable.`,
  repairs: ({ port }, index) =>
    [...(index.groups("hostsByPort").get(port) ?? [])]
      .sort((a, b) => byText(a.id, b.id))
      .slice(-1)
      .map((host): Repair => ({
        label: `Unplug ${host.name}`,
        planner: "unplug-host",
        args: { host: host.id },
        edit: (edits) => edits.patch("host", host.id, { attachment: { at: "unplaced" } }),
      })),
});
