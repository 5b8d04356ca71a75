import { formatAddress } from "../../address";
import { nameOf, type Forward, type Host, type PlanIndex } from "../../plan";
import { nextFreeFor } from "../../planners";
import { forwardHolds } from "../../policy";
import type { Repair } from "../../repairs";
import { isDelicate } from "../../ways-in";
import { check, type Found } from "../check";

interface ForwardData {
  readonly forward: string;
}

const found = ({ id, host }: Forward): Found<ForwardData> => ({
  subjects: [
    { kind: "forward", id },
    { kind: "host", id: host },
  ],
  data: { forward: id },
});

/** The forwards that hold today and that the test says something of. */
const forwardsThat = (index: PlanIndex, test: (forward: Forward, host: Host | undefined) => boolean) =>
  [...index.plan.forward.values()].flatMap((forward): Found<ForwardData>[] =>
    forwardHolds(index, forward) && test(forward, index.plan.host.get(forward.host)) ? [found(forward)] : [],
  );

const remove = (index: PlanIndex, forward: string): Repair => ({
  label: `Remove the forward ${nameOf(index, "forward", forward)}`,
  planner: "remove-forwards",
  args: { forwards: [forward] },
  edit: (edits) => edits.remove("forward", forward),
});

/** Reserves an address: the one that the host has in the plan, else the next free one of its segment. */
export function reserve(index: PlanIndex, id: string): Repair[] {
  const host = index.plan.host.get(id);
  const segment = index.plan.segment.get(host?.segment ?? "");
  const address = host?.ipv4 ?? (segment === undefined ? null : nextFreeFor(index, segment, "reserved"));
  if (host === undefined || segment === undefined || address === null) return [];
  return [
    {
      label: `Reserve ${formatAddress(address)} for ${host.name}`,
      planner: "reserve-address",
      args: { host: id, address: formatAddress(address) },
      edit: (edits) => edits.patch("host", id, { manner: "reserved", ipv4: address }),
    },
  ];
}

export const forwardHostMoves = check<ForwardData>({
  code: "forward-host-moves",
  severity: "stop",
  family: "gateway",
  title: "A forward leads to a device whose address may move",
  why: "One day the address is somebody else's, and the internet comes in there.",
  reads: ["forward", "host", "segment", "scope", "interface", "site"],
  find: (index) => forwardsThat(index, (_, host) => host?.manner === "dynamic" || host?.ipv4 === null),
  describe: ({ forward }, index) => {
    const own = index.plan.forward.get(forward);
    const host = nameOf(index, "host", own?.host ?? "");
    return (
      `${host} gets its address by DHCP without a reservation: ` +
      `the forward ${nameOf(index, "forward", forward)} will lead to something else one day.`
    );
  },
  repairs: ({ forward }, index) => reserve(index, index.plan.forward.get(forward)?.host ?? ""),
});

interface ClashData {
  readonly earlier: string;
  readonly later: string;
}

const portsText = ({ protocol, ports: [low, high] }: Forward): string =>
  `${protocol.toUpperCase()} ${low === high ? low : `${low} to ${high}`}`;

const clash = (a: Forward, b: Forward): boolean =>
  a.line === b.line && a.protocol === b.protocol && a.ports[0] <= b.ports[1] && b.ports[0] <= a.ports[1];

/**
 * The first port from `from` on at which a run of that length meets no other forward of the line; null
 * without one.
 */
function freePort(index: PlanIndex, forward: Forward): number | null {
  const [low, high] = forward.ports;
  const others = [...index.plan.forward.values()].filter(({ id }) => id !== forward.id);
  for (let port = high + 1; port + high - low <= 65_535; port += 1)
    if (!others.some((other) => clash({ ...forward, ports: [port, port + high - low] }, other))) return port;
  return null;
}

export const forwardPortsClash = check<ClashData>({
  code: "forward-ports-clash",
  severity: "stop",
  family: "gateway",
  title: "Two forwards want the same port outside",
  why: "Only one of them gets what comes in; which one is the device's choice.",
  reads: ["forward"],
  find: (index) => {
    const all = [...index.plan.forward.values()].filter((forward) => forwardHolds(index, forward));
    return all.flatMap((later, at) =>
      all.slice(0, at).flatMap((earlier): Found<ClashData>[] =>
        clash(earlier, later)
          ? [
              {
                subjects: [earlier, later].map(({ id }) => ({ kind: "forward", id })),
                data: { earlier: earlier.id, later: later.id },
              },
            ]
          : [],
      ),
    );
  },
  describe: ({ earlier, later }, index) => {
    const own = index.plan.forward.get(later);
    const ports = own === undefined ? "" : `${portsText(own)} on ${nameOf(index, "line", own.line)}`;
    return `${nameOf(index, "forward", earlier)} and ${nameOf(index, "forward", later)} both want ${ports}.`;
  },
  repairs: ({ later }, index) => {
    const own = index.plan.forward.get(later);
    const port = own === undefined ? null : freePort(index, own);
    if (own === undefined || port === null) return [];
    const ports: [number, number] = [port, port + own.ports[1] - own.ports[0]];
    // What is asked inside stays: a forward that kept the port outside has to name it now.
    const toPort = own.toPort ?? own.ports[0];
    return [
      {
        label: `Move ${own.name} to ${portsText({ ...own, ports })}`,
        planner: "write-forward",
        args: { forward: later, ports },
        edit: (edits) => edits.patch("forward", later, { ports, toPort }),
      },
    ];
  },
});

/** The lines by which something can come in from outside: the carrier gives them an address of their own. */
const openLines = ({ plan }: PlanIndex) =>
  [...plan.line.values()].filter(({ carrierNat }) => carrierNat !== "yes");

export const forwardBehindCarrier = check<ForwardData>({
  code: "forward-behind-carrier",
  severity: "stop",
  family: "gateway",
  title: "A forward waits at a line by which nothing comes in",
  why:
    "The carrier translates for many customers at once (carrier-grade NAT): " +
    "what is asked from outside ends there, whatever is forwarded here.",
  reads: ["forward", "line", "host"],
  find: (index) => forwardsThat(index, ({ line }) => index.plan.line.get(line)?.carrierNat === "yes"),
  describe: ({ forward }, index) => {
    const line = nameOf(index, "line", index.plan.forward.get(forward)?.line ?? "");
    const name = nameOf(index, "forward", forward);
    return `Nothing comes in by ${line}, whose carrier translates: the forward ${name} can't work there.`;
  },
  repairs: ({ forward }, index) => [
    ...openLines(index).map(({ id, name }): Repair => ({
      label: `Let it come in by ${name}`,
      planner: "write-forward",
      args: { forward, line: id },
      edit: (edits) => edits.patch("forward", forward, { line: id }),
    })),
    remove(index, forward),
  ],
});

export const forwardOver = check<ForwardData>({
  code: "forward-over",
  severity: "note",
  family: "gateway",
  title: "A forward's last day is over",
  why: "What nobody needs any more is still there to be found.",
  reads: ["forward"],
  find: (index) =>
    [...index.plan.forward.values()].filter((forward) => !forwardHolds(index, forward)).map(found),
  describe: ({ forward }, index) =>
    `The forward ${nameOf(index, "forward", forward)} was to hold until ` +
    `${index.plan.forward.get(forward)?.until ?? ""}: take it off the device, and out of the plan.`,
  repairs: ({ forward }, index) => [remove(index, forward)],
});

/** The ports that a forward leads to inside. */
const insidePorts = ({ ports: [low, high], toPort }: Forward): [number, number][] => [
  toPort === null ? [low, high] : [toPort, toPort],
];

export const forwardExposes = check<ForwardData>({
  code: "forward-exposes",
  severity: "warn",
  family: "gateway",
  title: "Something delicate can be asked from the open internet",
  why:
    "It will be found within hours and tried for years. Safer: limit who may come in, " +
    "or let those who need it in by a VPN; local privacy law has a say where cameras are concerned.",
  reads: ["forward", "host"],
  find: (index) =>
    forwardsThat(
      index,
      (forward, host) => forward.sources.length === 0 && isDelicate(host, insidePorts(forward)),
    ),
  describe: ({ forward }, index) => {
    const own = index.plan.forward.get(forward);
    const host = nameOf(index, "host", own?.host ?? "");
    return (
      `${host} can be asked by anybody on the internet, by the forward ${nameOf(index, "forward", forward)}` +
      `${own === undefined ? "" : ` (${portsText(own)})`}: say who may come in, or remove it.`
    );
  },
  repairs: ({ forward }, index) => [remove(index, forward)],
});
