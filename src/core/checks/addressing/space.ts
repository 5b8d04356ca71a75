import {
  addressCount,
  containsPrefix,
  formatPrefix,
  rangeCount,
  SPECIAL_BLOCKS,
  usableRange,
  type Prefix,
  type SpecialUse,
} from "../../address";
import { nameOf, type PlanIndex, type Segment } from "../../plan";
import { devicesOf, roomyLength, enlarge, enlargementOf, nextSubnet6 } from "../../planners";
import { check, localCheck, type Found } from "../check";
import type { Repair } from "../../repairs";
import { moveToFreePlace } from "./subnets-overlap";
import { segmentsTouched } from "../touched";

const prefixesOf = (segment: Segment): Prefix[] => [...segment.prefixes4, ...segment.prefixes6];
const useOf = (prefix: Prefix): SpecialUse | null =>
  SPECIAL_BLOCKS.find((block) => containsPrefix(block.prefix, prefix))?.use ?? null;

interface Space {
  readonly segment: string;
  readonly prefix: Prefix;
  readonly use: SpecialUse | null;
}

const spaces = (index: PlanIndex, is: (prefix: Prefix, use: SpecialUse | null) => boolean): Found<Space>[] =>
  [...index.plan.segment.values()].flatMap((segment) =>
    prefixesOf(segment)
      .filter((prefix) => is(prefix, useOf(prefix)))
      .map((prefix) => ({
        subjects: [{ kind: "segment" as const, id: segment.id }],
        data: { segment: segment.id, prefix, use: useOf(prefix) },
      })),
  );

const USE_WORDS: Readonly<Partial<Record<SpecialUse, string>>> = {
  loopback: "a device's talk with itself",
  "link-local": "devices that got no address",
  multicast: "groups of listeners",
  reserved: "nobody yet",
  unspecified: "no address at all",
  "this-network": "devices that have no address yet",
  benchmarking: "tests of devices",
  shared: "the provider's own translation",
};

export const reservedSpaceInside = check<Space>({
  code: "reserved-space-inside",
  severity: "stop",
  family: "segments",
  title: "A segment lies in addresses that no device may have",
  why: "Devices and routers drop such addresses by standard, so nothing in the segment would work.",
  reads: ["segment", "site"],
  find: (index) =>
    spaces(
      index,
      (prefix, use) => use !== null && !["private", "unique-local", "documentation", "shared"].includes(use),
    ),
  describe: ({ segment, prefix, use }, index) =>
    `${nameOf(index, "segment", segment)} has ${formatPrefix(prefix)}, which ` +
    `is set aside for ${USE_WORDS[use ?? "reserved"] ?? "another use"}.`,
  repairs: ({ segment, prefix }, index) =>
    prefix.family === 4 ? moveToFreePlace(index, segment) : otherPrefix6(index, segment, prefix),
});

/** Another IPv6 subnet out of the site's blocks, or none. */
function otherPrefix6(index: PlanIndex, id: string, prefix: Prefix): Repair[] {
  const segment = index.plan.segment.get(id);
  const fresh = segment === undefined ? null : nextSubnet6(index.plan, index.vidOf(segment));
  if (segment === undefined) return [];
  return [
    ...(fresh === null
      ? []
      : [
          {
            label: `Give it ${formatPrefix(fresh)}`,
            planner: "set-prefix6",
            args: { segment: id, to: formatPrefix(fresh) },
            edit: (edits) =>
              edits.patch("segment", id, {
                prefixes6: segment.prefixes6.map((p) => (p === prefix ? fresh : p)),
              }),
          } satisfies Repair,
        ]),
    {
      label: "Take the IPv6 subnet away",
      planner: "set-prefix6",
      args: { segment: id },
      edit: (edits) =>
        edits.patch("segment", id, {
          prefixes6: segment.prefixes6.filter((p) => p !== prefix),
          ...(segment.prefixes6.length === 1 ? { advertise: "none" } : {}),
        }),
    },
  ];
}

export const publicSpaceInside = check<Space>({
  code: "public-space-inside",
  severity: "warn",
  family: "segments",
  title: "A segment uses addresses that belong to somebody on the internet",
  why: "Whoever holds them out there can't be reached from here, and nobody notices until that is needed.",
  reads: ["segment", "site"],
  find: (index) =>
    spaces(
      index,
      (prefix, use) =>
        (prefix.family === 4 && (use === null || use === "shared")) ||
        (prefix.family === 6 &&
          use === null &&
          !index.plan.site.blocks.some((block) => containsPrefix(block, prefix))),
    ),
  describe: ({ segment, prefix, use }, index) =>
    `${nameOf(index, "segment", segment)} has ${formatPrefix(prefix)}, which ` +
    `is ${use === "shared" ? "the provider's shared space" : "public space"} ` +
    "and not one of the site's blocks.",
  repairs: ({ segment, prefix }, index) =>
    prefix.family === 4 ? moveToFreePlace(index, segment) : otherPrefix6(index, segment, prefix),
});

interface Point {
  readonly segment: string;
  readonly prefix: Prefix;
  readonly devices: number;
}

export const subnetWithoutRoom = localCheck<Point, "segment">({
  code: "subnet-without-room",
  severity: "stop",
  family: "segments",
  title: "A subnet for two ends only has clients",
  why:
    "A /31 has two addresses and a /32 one, all of them usable: enough " +
    "for the two ends of a line, never for a gateway with clients.",
  reads: ["segment", "host", "interface", "scope"],
  of: "segment",
  touched: segmentsTouched,
  findAt: (index, segment) => {
    const prefix = segment.prefixes4[0];
    if (prefix === undefined || prefix.length < 31) return [];
    const devices = devicesOf(index, segment);
    if (devices <= Number(addressCount(prefix)) && index.scopesOf(segment.id).length === 0) return [];
    return [
      { subjects: [{ kind: "segment", id: segment.id }], data: { segment: segment.id, prefix, devices } },
    ];
  },
  describe: ({ segment, prefix, devices }, index) =>
    `${nameOf(index, "segment", segment)} has ${formatPrefix(prefix)}, which holds ` +
    `${addressCount(prefix)}, and ${devices} devices or a pool are planned in it.`,
  repairs: ({ segment }, index) => moveToFreePlace(index, segment),
});

interface Growth {
  readonly segment: string;
  readonly planned: number;
  readonly usable: number;
}

/** A larger subnet for a segment, in place where that can be. */
function enlargement(index: PlanIndex, segment: Segment): Repair[] {
  const larger = enlargementOf(index.plan, segment, roomyLength(devicesOf(index, segment)));
  return larger === null
    ? []
    : [
        {
          label: larger.inPlace
            ? `Let it grow to ${formatPrefix(larger.to)}, no address changes`
            : `Move it to ${formatPrefix(larger.to)}`,
          planner: "enlarge-segment",
          args: { segment: segment.id, to: formatPrefix(larger.to) },
          edit: (edits) => enlarge(edits, segment.id, larger),
        },
      ];
}

export const noRoomForGrowth = localCheck<Growth, "segment">({
  code: "no-room-for-growth",
  severity: "warn",
  family: "segments",
  title: "A subnet is too small for what is planned",
  why: "When it is full, the whole segment has to be renumbered, with every fixed address in it.",
  reads: ["segment", "host", "interface"],
  of: "segment",
  touched: segmentsTouched,
  findAt: (index, segment) => {
    if (segment.prefixes4.length === 0 || (segment.prefixes4[0]?.length ?? 0) >= 31) return [];
    const usable = segment.prefixes4.reduce(
      (sum, prefix) => sum + Number(rangeCount(usableRange(prefix))),
      0,
    );
    const gateway = index.gatewayOf(segment)?.addresses4.length ?? 0;
    const legs = index.interfacesIn(segment.id).length - (segment.gatewayInterface === null ? 0 : 1);
    const planned = Math.max(
      Math.ceil((segment.planned * (100 + segment.growth)) / 100),
      index.hostsIn(segment.id).length + Math.max(0, legs),
    );
    return usable - gateway >= planned
      ? []
      : [
          {
            subjects: [{ kind: "segment", id: segment.id }],
            data: { segment: segment.id, planned, usable: usable - gateway },
          },
        ];
  },
  describe: ({ segment, planned, usable }, index) =>
    `${nameOf(index, "segment", segment)} has ${usable} addresses ` +
    `beside the gateway and ${planned} devices are planned with growth.`,
  repairs: ({ segment }, index) => {
    const target = index.plan.segment.get(segment);
    return target === undefined ? [] : enlargement(index, target);
  },
});

interface Advertised {
  readonly segment: string;
  readonly prefix: Prefix;
}

export const advertisedPrefixLength = check<Advertised>({
  code: "advertised-prefix-length",
  severity: "stop",
  family: "segments",
  title: "Clients are told to make their own address in a subnet where they can't",
  why:
    "A client that makes its own IPv6 address needs 64 bits for " +
    "it (RFC 4862, RFC 7136); in a longer prefix it makes none.",
  reads: ["segment", "site"],
  find: (index): Found<Advertised>[] =>
    [...index.plan.segment.values()].flatMap((segment) =>
      segment.advertise !== "slaac" && segment.advertise !== "stateless"
        ? []
        : segment.prefixes6
            .filter((prefix) => prefix.length !== 64)
            .map((prefix) => ({
              subjects: [{ kind: "segment" as const, id: segment.id }],
              data: { segment: segment.id, prefix },
            })),
    ),
  describe: ({ segment, prefix }, index) =>
    `${nameOf(index, "segment", segment)} announces ${formatPrefix(prefix)} ` +
    "for addresses of the clients' own; that takes a /64.",
  repairs: ({ segment, prefix }, index): Repair[] => {
    return [
      ...otherPrefix6(index, segment, prefix),
      {
        label: "Let a server give the addresses (stateful)",
        planner: "set-advertise",
        args: { segment },
        edit: (edits) => edits.patch("segment", segment, { advertise: "stateful" }),
      },
    ];
  },
});
