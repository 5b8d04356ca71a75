import { formatAddress, netmaskText, type Family } from "../address";
import {
  nameOf,
  prefixesOf,
  type Device,
  type Interface,
  type PlanIndex,
  type ProbeGoal,
  type Segment,
} from "../plan";
import type { Party } from "../places";
import { addressesOf, allLinesOf, farAddress, tunnelService } from "../routing";
import { fromOutside } from "./outside";
import { reachGoal } from "./goals";
import type { Lease } from "./lease";
import type { ProbeRun } from "./run";

/** The end of a tunnel on our side: the device with a leg in the tunnel's segment; null without one. */
function tunnelEnd(
  index: PlanIndex,
  segment: Segment,
): { readonly device: Device; readonly leg: Interface } | null {
  const leg = index.gatewayOf(segment) ?? index.interfacesIn(segment.id)[0];
  const device = leg === undefined ? undefined : index.plan.device.get(leg.device);
  return leg === undefined || device === undefined ? null : { device, leg };
}

/** The lines that a segment's tunnel can come in by, in the order of failover. */
const tunnelLines = (index: PlanIndex, { tunnel }: Segment, device: Device) =>
  allLinesOf(index, device.id)
    .map(({ line }) => line)
    .filter(({ id }) => tunnel !== null && (tunnel.line === null || tunnel.line === id));

function noTunnel(run: ProbeRun, segment: Segment, sentence: string): void {
  const subjects = [{ kind: "segment" as const, id: segment.id }];
  run.journey.stop(
    { title: segment.name, place: "tunnel", says: "does not come up", subjects },
    { sentence, subjects, repairs: [] },
  );
}

/** Lets the tunnel come up: a packet from outside to where the gateway answers it. False after a stop. */
function comesUp(run: ProbeRun, segment: Segment, device: Device): boolean {
  const { tunnel } = segment;
  if (tunnel === null) return false;
  const lines = tunnelLines(run.index, segment, device);
  const goal: ProbeGoal = { to: "gateway", service: tunnelService(tunnel) };
  const tried = lines.find((line) => {
    const aside = run.aside();
    fromOutside(aside, line.id, goal, 4);
    return aside.journey.cause === null;
  });
  const line = tried ?? lines[0];
  if (line === undefined) {
    const named = tunnel.line === null ? "" : `(${nameOf(run.index, "line", tunnel.line)}) `;
    noTunnel(
      run,
      segment,
      `${device.name} has no line ${named}` +
        `on which it could answer ${tunnel.protocol.toUpperCase()} ${tunnel.port}.`,
    );
    return false;
  }
  fromOutside(run, line.id, goal, 4);
  run.journey.delivered = false;
  return run.journey.cause === null;
}

/** What somebody gets who has come in by a segment's tunnel: first the tunnel itself, then what is asked. */
export function fromTunnel(run: ProbeRun, segmentId: string, goal: ProbeGoal, family: Family): void {
  const segment = run.index.plan.segment.get(segmentId);
  if (segment === undefined || segment.tunnel === null) return;
  const end = tunnelEnd(run.index, segment);
  if (end === null)
    return noTunnel(run, segment, `No device has a leg in ${segment.name}, so its tunnel ends nowhere.`);
  const address = farAddress(segment, family);
  if (address === null)
    return noTunnel(
      run,
      segment,
      `${segment.name} has no IPv${family} subnet, so nobody in it has an address.`,
    );
  if (!comesUp(run, segment, end.device)) return;
  const name =
    segment.tunnel.kind === "users" ? `Somebody in ${segment.name}` : `The far end, ${segment.name}`;
  run.journey.pass({
    title: name,
    place: formatAddress(address),
    says: `comes in by the tunnel to ${end.device.name}`,
    subjects: [{ kind: "segment", id: segment.id }],
    device: end.device.id,
  });
  const [own] = prefixesOf(segment, family);
  const lease: Lease = {
    address,
    mask: own === undefined ? "" : netmaskText(own),
    own: [],
    gateway: addressesOf(end.leg, family)[0] ?? null,
    gatewayLeg: end.leg,
    dns: [],
    leaseSeconds: null,
    server: "static",
    segment: segment.id,
    free: null,
    leased: false,
    turnedAt: null,
  };
  reachGoal(
    run,
    { party: farParty(name, end.device), vid: 0, segment, host: null, signIn: null },
    lease,
    goal,
  );
}

/** Somebody at a tunnel's far end hangs on none of our wires: VLAN 0 is nobody's. */
const farParty = (name: string, device: Device): Party => ({
  name,
  mac: "02:00:00:00:00:00" as Party["mac"],
  place: { at: "inside", device: device.id, vid: 0, port: null, ssid: null },
  leg: null,
  host: null,
});
