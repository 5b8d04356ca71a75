import { formatAddress, type Address } from "../address";
import { counted, listed, type Repair } from "../repairs";
import { type Device, type PlanEdits, type Host, type Port, type Vid, vid as asVid } from "../plan";
import type { ProbeRun } from "./run";
import { inspectionStops, switchHopsOf, type SwitchHop } from "./inspection";
import { guardedAt } from "./ipv6-guards";
import type { ProtectedVids } from "../planners";
import { partyOfHost, type Party } from "../places";
import type { Started } from "./start";

/**
 * Hosts of the register that something plugged in can reach with what it sends to all, each with the switches
 * on the way.
 */
function inEarshot(run: ProbeRun, { party }: Started): { host: Host; passings: readonly SwitchHop[] }[] {
  const { index } = run;
  const flood = run.flood(party.place);
  // What hangs on the port itself is unplugged for this.
  const replaced = new Set(
    party.place.at === "inside" ? [] : index.hostsAt(party.place.port).map((host) => host.id),
  );
  return [...index.plan.host.values()].flatMap((host) => {
    const other = host.id === party.host?.id || replaced.has(host.id) ? null : partyOfHost(index, host);
    const hearing = other === null ? null : run.hears(party.place, other.place);
    return hearing === null ? [] : [{ host, passings: switchHopsOf(run, flood, hearing) }];
  });
}

/** What an attack comes to: whom it reaches, and the switch that stops the rest. */
export interface Attack {
  readonly reached: readonly Host[];
  readonly stopped: readonly Host[];
  readonly by: Device | null;
}

function split(
  run: ProbeRun,
  started: Started,
  stops: (passings: readonly SwitchHop[]) => Device | null,
): Attack {
  const [reached, stopped]: [Host[], Host[]] = [[], []];
  let by: Device | null = null;
  for (const { host, passings } of inEarshot(run, started)) {
    const stop = stops(passings);
    if (stop === null) reached.push(host);
    else {
      stopped.push(host);
      by ??= stop;
    }
  }
  return { reached, stopped, by };
}

/**
 * The first switch on the way that takes answers of DHCP servers from trusted ports only, and does not
 * trust this one.
 */
const snoops = (passings: readonly SwitchHop[]): Device | null =>
  passings.find(
    ({ device, inPort, vid }) =>
      (device.protections.snooping as readonly number[]).includes(vid) &&
      inPort !== undefined &&
      !inPort.guards.dhcpTrust,
  )?.device ?? null;

/** A false DHCP server: whose questions it hears and who would take its answer. */
export function actAsServer(run: ProbeRun, started: Started): Attack {
  const attack = split(run, started, snoops);
  const asking = attack.reached.filter((host) => host.manner !== "typed");
  return tell(
    run,
    started,
    { ...attack, reached: asking },
    {
      does: "answers as a DHCP server",
      harm: (names) => `${names} would take its address and its gateway`,
      guard: "snoops, and does not trust the port it is at",
      needs: "snooping",
      repair: (device, port, vid) => ({
        label: `Let ${device.name} snoop in VLAN ${vid}`,
        planner: "set-snooping",
        args: { device: device.id, vid },
        edit: (edits: PlanEdits) => protect(edits, device, "snooping", vid),
      }),
    },
  );
}

/** A false router: who would send it what is for outside (RFC 6104). */
export function actAsRouter(run: ProbeRun, started: Started): Attack {
  const attack = split(run, started, (passings) => guardedAt(passings, "routerGuard")?.device ?? null);
  return tell(run, started, attack, {
    does: "advertises itself as a router",
    harm: (names) => `${names} would make an IPv6 address in its prefix and send it what is for outside`,
    guard: "guards router advertisements, and does not trust the port it is at",
    needs: "ipv6Guards",
    repair: (device, port, vid) => ({
      label: `Let ${device.name} guard router advertisements in VLAN ${vid}`,
      planner: "set-router-guard",
      args: { device: device.id, vid },
      edit: (edits: PlanEdits) => protect(edits, device, "routerGuard", vid),
    }),
  });
}

/** Somebody who says that another's address is his: who would believe it. */
export function actAsSpoofer(run: ProbeRun, started: Started, address: Address): Attack {
  const claim = { address, mac: started.party.mac, host: null, leased: false };
  const attack = split(run, started, (passings) =>
    inspectionStops(run, passings, claim) === null
      ? null
      : (passings.find(
          ({ device, inPort, vid }) =>
            inPort !== undefined &&
            !inPort.guards.arpTrust &&
            (device.protections.arpInspection as readonly number[]).includes(vid),
        )?.device ?? null),
  );
  return tell(run, started, attack, {
    does: `says that ${formatAddress(address)} is its own`,
    harm: (names) => `${names} would send it what is for ${formatAddress(address)}`,
    guard: "inspects ARP and knows better",
    needs: "arpInspection",
    repair: (device, port, vid) => ({
      label: `Let ${device.name} inspect ARP in VLAN ${vid}`,
      planner: "set-inspection",
      args: { device: device.id, vid },
      edit: (edits: PlanEdits) => protect(edits, device, "arpInspection", vid),
    }),
  });
}

function protect(edits: PlanEdits, device: Device, field: ProtectedVids, vid: number): void {
  const number: Vid | null = asVid(vid);
  const own = edits.need("device", device.id).protections;
  if (number !== null)
    edits.patch("device", device.id, {
      protections: { ...own, [field]: [...new Set([...own[field], number])].sort((a, b) => a - b) },
    });
}

interface Words {
  readonly does: string;
  readonly harm: (names: string) => string;
  readonly guard: string;
  /** What gear has to be able to for the repair. */
  readonly needs: "snooping" | "arpInspection" | "ipv6Guards";
  readonly repair: (device: Device, port: Port, vid: number) => Repair;
}

const NAMED = 3;

/** It reaches nobody: a guard drops it, or nobody is there. */
function keptOut(
  { journey }: ProbeRun,
  party: Party,
  vid: number,
  { by, guard }: { readonly by: Attack["by"]; readonly guard: string },
): void {
  const subjects = by === null ? [] : [{ kind: "device" as const, id: by.id }];
  journey.stop(
    {
      title: by?.name ?? party.name,
      place: by === null ? `VLAN ${vid}` : "guard",
      says: by === null ? "nobody is there to be fooled" : "drops it",
      why: by === null ? "" : `It ${guard}.`,
      subjects,
      device: by?.id ?? null,
    },
    {
      sentence:
        by === null
          ? `Nobody in VLAN ${vid} hears it.`
          : `${by.name} ${guard}: it is dropped, as it should be.`,
      subjects,
      repairs: [],
    },
  );
}

/** The journey of an attack: it is stopped, which is as it should be, or it gets through to somebody. */
function tell(run: ProbeRun, { party, vid }: Started, attack: Attack, words: Words): Attack {
  const { index, journey } = run;
  const port = party.place.at === "inside" ? undefined : index.plan.port.get(party.place.port);
  const device = port === undefined ? undefined : index.plan.device.get(port.device);
  const subjects = attack.reached.slice(0, 8).map((host) => ({ kind: "host" as const, id: host.id }));
  journey.pass({
    title: party.name,
    place: `VLAN ${vid}`,
    says: words.does,
    why:
      `${counted(attack.reached.length + attack.stopped.length, "device", "devices")} ` +
      "of the register hear it there.",
  });
  if (attack.reached.length === 0) {
    keptOut(run, party, vid, { by: attack.by, guard: words.guard });
    return attack;
  }
  const names =
    listed(attack.reached.slice(0, NAMED).map((host) => host.name)) +
    (attack.reached.length > NAMED ? ` and ${attack.reached.length - NAMED} more` : "");
  journey.pass({
    title: names,
    place: `VLAN ${vid}`,
    says: attack.reached.length === 1 ? "believes it" : "believe it",
    why: `${words.harm(names)}.`,
    subjects,
  });
  if (device?.abilities[words.needs] === true && port !== undefined)
    journey.offer([words.repair(device, port, vid)]);
  return attack;
}
