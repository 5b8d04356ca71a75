import { formatAddress, inRange, isGroup, type Ipv4 } from "../../address";
import { offeredRanges } from "../../dhcp";
import { nameOf, type Host, type PlanIndex, type Segment } from "../../plan";
import { convertSchool, nextFreeFor, HOST_KIND_WORDS, staticBlockIn } from "../../planners";
import { localCheck, type Found } from "../check";
import { type Repair, counted, shortAddress } from "../../repairs";
import { hostsTouched, segmentsTouched } from "../touched";

interface Mixed {
  readonly segment: string;
  readonly kind: Host["kind"];
  readonly typed: readonly string[];
  readonly reserved: readonly string[];
}

/** The kinds that have both manners. Most segments have none, so nothing is gathered before that is known. */
function mixedKinds(hosts: readonly Host[]): Host["kind"][] {
  const first = new Map<Host["kind"], Host["manner"]>();
  const mixed = new Set<Host["kind"]>();
  for (const { kind, manner } of hosts) {
    if (manner === "dynamic") continue;
    const known = first.get(kind);
    if (known === undefined) first.set(kind, manner);
    else if (known !== manner) mixed.add(kind);
  }
  return [...mixed].sort();
}

export const schoolMixed = localCheck<Mixed, "segment">({
  code: "school-mixed",
  severity: "note",
  family: "addresses",
  title: "Devices of one kind get their fixed addresses in two ways",
  why: "Some are reserved in DHCP, others static on the device: whoever replaces one has to know which.",
  reads: ["host", "segment"],
  of: "segment",
  touched: segmentsTouched,
  findAt: (index, segment): Found<Mixed>[] => {
    const hosts = index.hostsIn(segment.id);
    return mixedKinds(hosts)
      .map((kind) => {
        const of = (manner: Host["manner"]) =>
          hosts
            .filter((host) => host.kind === kind && host.manner === manner)
            .map((host) => host.id)
            .sort();
        return { kind, typed: of("typed"), reserved: of("reserved") };
      })
      .map(({ kind, typed, reserved }) => ({
        subjects: [
          { kind: "segment" as const, id: segment.id },
          ...[...typed, ...reserved]
            .sort()
            .slice(0, 20)
            .map((id) => ({ kind: "host" as const, id })),
        ],
        data: { segment: segment.id, kind, typed, reserved },
      }));
  },
  describe: ({ segment, kind, typed, reserved }, index) =>
    `${nameOf(index, "segment", segment)}: of the ${HOST_KIND_WORDS[kind]}s, ` +
    `${typed.length} ${typed.length === 1 ? "has a static address" : "have static addresses"} and ` +
    `${reserved.length} ${reserved.length === 1 ? "a reserved one" : "reserved ones"}.`,
  repairs: ({ typed, reserved }, index): Repair[] => {
    const withoutMac = typed.some((id) => (index.plan.host.get(id)?.mac ?? null) === null);
    return [
      ...(withoutMac
        ? []
        : [
            {
              label: `Reserve ${counted(typed.length, "static one", "static ones")}`,
              planner: "convert-school",
              args: { to: "reserved" },
              edit: (edits) => convertSchool(edits, index, typed, "reserved"),
            } satisfies Repair,
          ]),
      {
        label: `Make ${counted(reserved.length, "reserved one", "reserved ones")} static`,
        planner: "convert-school",
        args: { to: "typed" },
        edit: (edits) => convertSchool(edits, index, reserved, "typed"),
      },
    ];
  },
});

interface InBlock {
  readonly host: string;
  readonly segment: string;
  readonly address: Ipv4;
}

/** The static block of a segment as far as no pool lies over it. */
const inStaticBlock = (index: PlanIndex, segment: Segment, address: Ipv4): boolean => {
  const prefix = segment.prefixes4[0];
  const block = prefix === undefined ? null : staticBlockIn(index.plan.site.conventions, prefix);
  return (
    block !== null &&
    inRange(block, address) &&
    !index.scopesOf(segment.id).some((scope) => offeredRanges(scope).some((range) => inRange(range, address)))
  );
};

export const reservedInStaticBlock = localCheck<InBlock, "host">({
  code: "reserved-in-static-block",
  severity: "note",
  family: "addresses",
  title: "A reserved address lies among those kept for static devices",
  why:
    "Whoever types an address into the next device takes one " +
    "of that block, and the server may be handing it out.",
  reads: ["host", "segment", "scope", "site"],
  of: "host",
  touched: (index, change) => (change.kind === "site" ? "all" : hostsTouched(index, change)),
  findAt: (index, host): Found<InBlock>[] => {
    if (host.manner !== "reserved" || host.ipv4 === null || host.segment === null) return [];
    const segment = index.plan.segment.get(host.segment);
    // Without a pool there is nowhere else for a reservation.
    if (
      segment === undefined ||
      index.scopesOf(segment.id).length === 0 ||
      !inStaticBlock(index, segment, host.ipv4)
    )
      return [];
    return [
      {
        subjects: [
          { kind: "host", id: host.id },
          { kind: "segment", id: segment.id },
        ],
        data: { host: host.id, segment: segment.id, address: host.ipv4 },
      },
    ];
  },
  describe: ({ host, address, segment }, index) =>
    `${shortAddress(address)} is reserved for ${nameOf(index, "host", host)} and lies in ` +
    `the block of ${nameOf(index, "segment", segment)} that is kept for static devices.`,
  repairs: ({ host, segment }, index): Repair[] => {
    const target = index.plan.segment.get(segment);
    const free = target === undefined ? null : nextFreeFor(index, target, "reserved");
    return [
      ...(free === null
        ? []
        : [
            {
              label: `Reserve ${shortAddress(free)} instead`,
              planner: "move-address",
              args: { host, to: formatAddress(free) },
              edit: (edits) => edits.patch("host", host, { ipv4: free }),
            } satisfies Repair,
          ]),
      {
        label: "Type it into the device",
        planner: "convert-school",
        args: { to: "typed" },
        edit: (edits) => edits.patch("host", host, { manner: "typed" }),
      },
    ];
  },
});

interface GroupMac {
  readonly host: string;
  readonly mac: string;
}

export const macIsGroup = localCheck<GroupMac, "host">({
  code: "mac-is-group",
  severity: "stop",
  family: "addresses",
  title: "A MAC address is a group address",
  why:
    "With the lowest bit of the first byte set it is a group's (IEEE " +
    "802); no device sends from one, so no reservation ever matches it.",
  reads: ["host"],
  of: "host",
  touched: () => [],
  findAt: (_index, host): Found<GroupMac>[] =>
    host.mac === null || !isGroup(host.mac)
      ? []
      : [{ subjects: [{ kind: "host", id: host.id }], data: { host: host.id, mac: host.mac } }],
  describe: ({ host, mac }, index) =>
    `${nameOf(index, "host", host)} has ${mac}, which stands ` +
    "for a group of devices. It was read or copied wrongly.",
  repairs: ({ host }): Repair[] => [
    {
      label: "Clear it and read it again",
      planner: "clear-mac",
      args: { host },
      edit: (edits) => {
        const known = edits.need("host", host);
        edits.patch("host", host, { mac: null, ...(known.manner === "reserved" ? { manner: "typed" } : {}) });
      },
    },
  ],
});
