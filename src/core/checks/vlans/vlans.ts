import { byText } from "../../kernel";
import { nameOf, vid as asVid, type PlanIndex } from "../../plan";
import { carryOn, nextFreeVid } from "../../planners";
import { CARRY, portCarries } from "../../forwarding";
import { check, type Found } from "../check";
import { type Repair, counted, listed } from "../../repairs";

interface VidTwice {
  readonly vid: number;
  readonly vlans: readonly string[];
}

function renumber(index: PlanIndex, vlanId: string): Repair[] {
  const vlan = index.plan.vlan.get(vlanId);
  const free = vlan === undefined ? null : nextFreeVid(index.plan, vlan.domain);
  if (vlan === undefined || free === null) return [];
  return [
    {
      label: `Give ${vlan.name} the number ${free}`,
      planner: "renumber-vlan",
      args: { vlan: vlanId, vid: free },
      edit: (edits) => edits.patch("vlan", vlanId, { vid: free }),
    },
  ];
}

export const vidTwice = check<VidTwice>({
  code: "vid-twice",
  severity: "stop",
  family: "segments",
  title: "One VLAN ID stands for two VLANs",
  why: "A switch knows only the number: what should be apart is one network.",
  reads: ["vlan"],
  find: (index): Found<VidTwice>[] =>
    [...index.groups("vlansByDomainAndVid").values()]
      .filter((group) => group.length > 1)
      .map((group) => {
        const vlans = [...group].sort((a, b) => byText(a.id, b.id));
        return {
          subjects: vlans.map((v) => ({ kind: "vlan" as const, id: v.id })),
          data: { vid: vlans[0]?.vid ?? 0, vlans: vlans.map((v) => v.id) },
        };
      }),
  describe: ({ vid, vlans }, index) =>
    `VLAN ID ${vid} stands for ` +
    `${listed(vlans.map((id) => index.plan.vlan.get(id)?.name ?? "a VLAN"))} in one domain.`,
  repairs: ({ vlans }, index) =>
    [...vlans]
      .reverse()
      .flatMap((id) => renumber(index, id))
      .slice(0, 2),
});

interface DefaultVid {
  readonly segment: string;
  readonly vlan: string;
}

export const defaultVidForManagement = check<DefaultVid>({
  code: "default-vid-for-management",
  severity: "warn",
  family: "segments",
  title: "Management uses VLAN 1",
  why: "New gear has VLAN 1 open on every port, so whoever plugs in stands in front of the gear's own pages.",
  reads: ["vlan", "segment"],
  find: (index) =>
    [...index.plan.segment.values()]
      .filter((segment) => segment.management && index.vidOf(segment) === 1)
      .map((segment) => ({
        subjects: [
          { kind: "segment" as const, id: segment.id },
          { kind: "vlan" as const, id: segment.vlan ?? "" },
        ],
        data: { segment: segment.id, vlan: segment.vlan ?? "" },
      })),
  describe: ({ segment }, index) =>
    `${index.plan.segment.get(segment)?.name ?? "The management segment"} ` +
    "is on VLAN 1, which new gear lets out of every port.",
  repairs: ({ vlan }, index) => renumber(index, vlan),
});

interface BreakData {
  readonly vid: number;
  readonly domain: string | null;
  readonly stranded: string;
  readonly wanted: string;
  readonly ports: readonly string[];
}

const breaksWhere = (index: PlanIndex, cabled: boolean): Found<BreakData>[] =>
  index
    .derived(CARRY)
    .breaks.filter((b) => b.lacking.length > 0 === cabled)
    .map((b) => ({
      subjects: [
        ...b.lacking.map((port) => ({ kind: "port" as const, id: port.id })),
        { kind: "device" as const, id: b.stranded },
        ...vlanSubject(index, b.domain, b.vid),
      ],
      data: {
        vid: b.vid,
        domain: b.domain,
        stranded: b.stranded,
        wanted: b.wanted,
        ports: b.lacking.map((port) => port.id),
      },
    }));

const vlanSubject = (index: PlanIndex, domain: string | null, vid: number) => {
  const vlan = index.vlanOf(domain, vid);
  return vlan === undefined ? [] : [{ kind: "vlan" as const, id: vlan.id }];
};

const vlanText = (index: PlanIndex, domain: string | null, vid: number): string => {
  const vlan = index.vlanOf(domain, vid);
  return vlan === undefined ? `VLAN ${vid}` : `${vlan.name} (${vid})`;
};

export const vlanMissingOnHop = check<BreakData>({
  code: "vlan-missing-on-hop",
  severity: "stop",
  family: "ports",
  title: "A VLAN is missing on a hop between places that use it",
  why:
    "Frames are dropped at that port. It looks like a broken " +
    "cable: link lights are on, but nobody gets an address.",
  reads: ["device", "port", "link", "interface", "host", "segment", "vlan", "ssid", "signIn"],
  find: (index) => breaksWhere(index, true),
  describe: ({ vid, domain, stranded, wanted, ports }, index) =>
    `${vlanText(index, domain, vid)} stops at ` +
    `${listed(ports.map((id) => nameOf(index, "port", id)))}: ` +
    `${ports.length > 1 ? "these ports do" : "this port does"} not carry it, so ` +
    `${nameOf(index, "device", stranded)} can't reach ${nameOf(index, "device", wanted)} in it.`,
  repairs: ({ vid, domain, ports }, index) => {
    const number = asVid(vid);
    if (number === null) return [];
    return [
      {
        label:
          `Add ${vlanText(index, domain, vid)} to ` +
          (ports.length === 1
            ? nameOf(index, "port", ports[0] ?? "")
            : counted(ports.length, "port", "ports")),
        planner: "carry-vlan",
        args: { vid, ports },
        edit: (edits) => carryOn(edits, ports, number),
      },
    ];
  },
});

export const noCableBetween = check<BreakData>({
  code: "no-cable-between",
  severity: "stop",
  family: "hardware",
  title: "Two places use one VLAN, and no cable joins them",
  why: "Each part works by itself, but nothing passes between them: no address, no gateway.",
  reads: ["device", "port", "link", "interface", "host", "segment", "vlan", "ssid", "signIn"],
  find: (index) => breaksWhere(index, false),
  describe: ({ vid, domain, stranded, wanted }, index) =>
    `${nameOf(index, "device", stranded)} and ${nameOf(index, "device", wanted)} ` +
    `both use ${vlanText(index, domain, vid)}, and no cable joins them.`,
  repairs: () => [],
});

interface JoinedData {
  readonly from: string;
  readonly to: string;
  readonly fromVid: number;
  readonly toVid: number;
}

export const vlansJoined = check<JoinedData>({
  code: "vlans-joined-by-link",
  severity: "stop",
  family: "ports",
  title: "A cable joins two VLANs",
  why:
    "What leaves the one port untagged joins another VLAN " +
    "at the far end: the wall between the two has a hole.",
  reads: ["device", "port", "link", "interface", "host", "vlan", "segment", "ssid", "signIn"],
  find: (index): Found<JoinedData>[] => {
    const seen = new Set<string>();
    return index.derived(CARRY).crossings.flatMap(({ from, to, fromVid, toVid }) => {
      const key = [`${from.id} ${fromVid}`, `${to.id} ${toVid}`].sort(byText).join(" ");
      if (seen.has(key)) return [];
      seen.add(key);
      return [
        {
          subjects: [
            { kind: "port" as const, id: from.id },
            { kind: "port" as const, id: to.id },
          ],
          data: { from: from.id, to: to.id, fromVid, toVid },
        },
      ];
    });
  },
  describe: ({ from, to, fromVid, toVid }, index) =>
    `What leaves ${nameOf(index, "port", from)} in VLAN ${fromVid} arrives at ` +
    `${nameOf(index, "port", to)} in VLAN ${toVid}: the two leak into each other.`,
  repairs: ({ from, to, fromVid, toVid }, index) => {
    const use = (port: string, far: string, vid: number): Repair[] => {
      const number = asVid(vid);
      if (number === null) return [];
      return [
        {
          label: `Use VLAN ${vid} untagged at ${nameOf(index, "port", port)} too`,
          planner: "set-untagged-vlan",
          args: { port, vid },
          edit: (edits) => {
            const before = edits.need("port", port);
            // What was untagged here goes on tagged where the far end expects it so; otherwise it would be
            // lost on this hop.
            const displaced = before.untagged.filter((old) => edits.need("port", far).tagged.includes(old));
            const tagged = [...new Set([...before.tagged, ...displaced])]
              .filter((t) => t !== number)
              .sort((a, b) => a - b);
            edits.patch("port", port, { pvid: number, untagged: [number], tagged });
          },
        },
      ];
    };
    // First the end whose own untagged VLAN is not lost by the change: nobody needs it here, or the far end
    // takes it tagged.
    const loses = (port: string, far: string, vid: number): boolean => {
      const need = portCarries(index).get(port)?.need;
      return (
        index.plan.port
          .get(port)
          ?.untagged.some(
            (old) =>
              old !== vid &&
              need?.has(old) === true &&
              index.plan.port.get(far)?.tagged.includes(old) !== true,
          ) === true
      );
    };
    const [theirs, ours] = [use(to, from, fromVid), use(from, to, toVid)];
    return loses(to, from, fromVid) && !loses(from, to, toVid) ? [...ours, ...theirs] : [...theirs, ...ours];
  },
});
