import { formatAddress } from "../address";
import { baselineOn } from "../device-sheet";
import { FABRIC } from "../fabric";
import { byNaturalText, grouped } from "../kernel";
import {
  nameOf,
  pointsOf,
  wallEndName,
  type Derived,
  type Device,
  type PlanIndex,
  type Port,
  type Scope,
  type WallEnd,
} from "../plan";
import { serviceNames, wallBetween, wallEnds, sameEnd } from "../policy";
import { managementAddress } from "../probe";
import { PORT_SETTINGS } from "../runbook";
import type { Fact } from "./fact";
import { gearFacts } from "./gear-facts";
import { ipv6Facts } from "./ipv6";
import { measuredTests } from "./measured";
import { pulledFacts } from "./pulled";
import { signInFacts } from "./sign-in-facts";

/** A VLAN at a port between gear; `port` as the fabric has it: of an aggregated link the one that leads. */
export const vlanFact = (port: string, vid: number): string => `vlan ${port} ${vid}`;
export const wirelessFact = (ssid: string, device: string): string => `wireless ${ssid} ${device}`;
export const scopeFact = (scope: string): string => `scope ${scope}`;
export const addressFact = (host: string): string => `address ${host}`;
export const wayInFact = (device: string): string => `way in ${device}`;
export const baselineFact = (device: string): string => `baseline ${device}`;

const endKey = (end: WallEnd): string => (end.at === "zone" ? end.zone : end.at);
/** What a wall is to do: let everything, or something, start; or keep out what it does not let. */
export type WallDoes = "lets" | "keeps out";
export const wallFact = (from: WallEnd, to: WallEnd, does: WallDoes): string =>
  `wall ${endKey(from)} ${endKey(to)} ${does}`;

/** Ports between gear, each with the VLANs that it carries. */
function vlanFacts(index: PlanIndex): Fact[] {
  const fabric = index.derived(FABRIC);
  const between = fabric.wires.flatMap(({ bridgePorts }) => (bridgePorts.length < 2 ? [] : bridgePorts));
  return between.flatMap((number): Fact[] => {
    const port = fabric.ports[number];
    if (port === undefined) return [];
    return [...new Set([...port.untagged, ...port.tagged])]
      .sort((a, b) => a - b)
      .map((vid) => ({
        id: vlanFact(port.id, vid),
        kind: "vlan",
        words: `VLAN ${vid} at ${nameOf(index, "port", port.id)}`,
        shownOn: { device: port.device },
      }));
  });
}

/** What like ports have in common; who signs in there counts, too. */
const roleKey = (port: Port): string =>
  JSON.stringify([PORT_SETTINGS.map((field) => port[field]), port.guards]);

/** A role of ports of one device: those that are set alike and lead to no other gear. */
export interface Role {
  readonly id: string;
  readonly device: Device;
  readonly ports: readonly Port[];
}

function findRoles(index: PlanIndex): Role[] {
  const fabric = index.derived(FABRIC);
  const between = new Set(
    fabric.wires.flatMap(({ bridgePorts }) => (bridgePorts.length < 2 ? [] : bridgePorts)),
  );
  const routed = index.groups("interfacesByPort");
  return [...index.plan.device.values()]
    .filter(({ bridging }) => bridging === "vlan")
    .sort((a, b) => byNaturalText(a.name, b.name))
    .flatMap((device) => {
      const ends = index
        .portsOf(device.id)
        .filter(
          ({ id, lag }) =>
            lag === null &&
            !routed.has(id) &&
            !between.has(fabric.portNumber.get(id) ?? -1) &&
            !isTo(index, id),
        );
      return [...grouped(ends, roleKey).values()].map((ports) => ({
        id: `role ${ports[0]?.id ?? ""}`,
        device,
        ports,
      }));
    });
}

const ROLES: Derived<readonly Role[]> = { reads: FABRIC.reads, make: findRoles };
/** The roles of a site's ports for end devices, device by device. */
export const rolesOf = (index: PlanIndex): readonly Role[] => index.derived(ROLES);

/** Whether a cable leads from a port to gear. */
const isTo = (index: PlanIndex, port: string): boolean => index.linkAt(port) !== undefined;

const roleFacts = (index: PlanIndex): Fact[] =>
  rolesOf(index).map(({ id, device, ports }) => ({
    id,
    kind: "role",
    words: `${device.name} ${portsText(ports)}`,
    shownOn: { device: device.id },
  }));

/** "port 7", "ports 3, 4, 5 and 2 more". */
export function portsText(ports: readonly Port[]): string {
  const [first, ...others] = ports.map(({ label }) => label);
  if (others.length === 0) return `port ${first ?? ""}`;
  const shown = [first, ...others.slice(0, 2)].join(", ");
  return `ports ${shown}${others.length > 2 ? ` and ${others.length - 2} more` : ""}`;
}

/** Whether somebody can be in an end of a wall at all. */
function isPeopled(index: PlanIndex, end: WallEnd): boolean {
  if (end.at === "zone") return (index.groups("segmentsByZone").get(end.zone) ?? []).length > 0;
  if (end.at === "internet") return index.plan.line.size > 0;
  return [...index.plan.device.values()].some(({ kind }) => kind === "gateway");
}

/** Both directions of every wall: what it lets, and that it keeps the rest out. */
function wallFacts(index: PlanIndex): Fact[] {
  const ends = wallEnds(index).filter((end) => isPeopled(index, end));
  return ends.flatMap((from) =>
    from.at === "gateway"
      ? []
      : ends.flatMap((to): Fact[] => {
          if (sameEnd(from, to)) return [];
          const wall = wallBetween(index, from, to);
          const door = wall?.door ?? "closed";
          const between = `${wallEndName(index, from)} to ${wallEndName(index, to)}`;
          const fact = (does: WallDoes, words: string): Fact => ({
            id: wallFact(from, to, does),
            kind: "wall",
            words: `${between}: ${words}`,
            shownOn: null,
          });
          if (door === "open") return [fact("lets", "open")];
          if (door === "closed") return [fact("keeps out", "closed")];
          const names = serviceNames(wall?.services ?? []).join(", ");
          return [fact("lets", names), fact("keeps out", `nothing but ${names}`)];
        }),
  );
}

function serverOf({ serverDevice, serverHost }: Scope): Fact["shownOn"] {
  if (serverDevice !== null) return { device: serverDevice };
  return serverHost === null ? null : { host: serverHost };
}

const wirelessFacts = (index: PlanIndex): Fact[] =>
  [...index.plan.ssid.values()].flatMap((ssid) =>
    pointsOf(index, ssid).map((point): Fact => ({
      id: wirelessFact(ssid.id, point.id),
      kind: "wireless",
      words: `${ssid.name} at ${point.name}`,
      shownOn: { device: point.id },
    })),
  );

const scopeFacts = (index: PlanIndex): Fact[] =>
  [...index.plan.scope.values()]
    .filter(({ family }) => family === 4)
    .map((scope) => ({
      id: scopeFact(scope.id),
      kind: "scope",
      words: `DHCP for ${nameOf(index, "segment", scope.segment)}`,
      shownOn: serverOf(scope),
    }));

/** Addresses that somebody entered or reserved for one device. */
const addressFacts = ({ plan }: PlanIndex): Fact[] =>
  [...plan.host.values()].flatMap(({ id, name, ipv4, manner, attachment }): Fact[] => {
    if (ipv4 === null || manner === "dynamic" || attachment.at === "unplaced") return [];
    const words = `${name}: ${formatAddress(ipv4)}`;
    return [{ id: addressFact(id), kind: "address", words, shownOn: { host: id } }];
  });

/** Of each device, that its pages open, and that it is administered as was decided. */
const deviceFacts = (index: PlanIndex): Fact[] =>
  [...index.plan.device.values()].flatMap((device): Fact[] => {
    const { id, name } = device;
    const address = managementAddress(index, device, 4);
    const pages: Fact[] =
      address === undefined
        ? []
        : [
            {
              id: wayInFact(id),
              kind: "way in",
              words: `The pages of ${name} at ${formatAddress(address)}`,
              shownOn: null,
            },
          ];
    if (baselineOn(index, device).length === 0) return pages;
    const words = `How ${name} is administered`;
    return [...pages, { id: baselineFact(id), kind: "baseline", words, shownOn: { device: id } }];
  });

/** All that is to be proven, kind by kind. */
export const factsOf = (index: PlanIndex): Fact[] => [
  ...vlanFacts(index),
  ...roleFacts(index),
  ...wirelessFacts(index),
  ...scopeFacts(index),
  ...ipv6Facts(index),
  ...addressFacts(index),
  ...deviceFacts(index),
  ...wallFacts(index),
  ...gearFacts(index),
  ...pulledFacts(index),
  ...signInFacts(index),
  ...measuredTests(index).map(({ fact }) => fact),
];
