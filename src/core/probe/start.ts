import { madeMac, type Family, type Mac } from "../address";
import type { Subject, Repair } from "../repairs";
import {
  joinsAt,
  nameOf,
  offers,
  type Host,
  type PlanIndex,
  type Port,
  type ProbePlace,
  type Segment,
  type Vid,
  type Ssid,
} from "../plan";
import { TREE } from "../spanning-tree";
import { classify, modeOf, type Tag } from "../fabric";
import { legsHearing, type Flood } from "../forwarding";
import type { ProbeRun } from "./run";
import { portRefuses } from "./deliver";
import { gapBetween } from "./gap";
import { tagText } from "./hops";
import { entryOf, macOf, placeOnAir, portOfHost, type Party } from "../places";
import { portPowerMw, type DeviceKind } from "../catalogue";
import { macLimitStops } from "./mac-limit";
import type { PortState } from "./port-state";
import { portStateFor } from "./sign-in";
import type { Cause } from "./step";

/** Where something is plugged in or joins. */
export type ProbeFrom = Exclude<ProbePlace, { readonly at: "internet" | "tunnel" }>;

/** How far the frame got at the very first device. */
export interface Started {
  readonly party: Party;
  readonly vid: number;
  /** The segment it lands in; null where its VLAN carries none. */
  readonly segment: Segment | null;
  readonly host: Host | null;
  /** How its port let it in; null where that asks for no sign-in. */
  readonly signIn: PortState | null;
}

const AP_NEEDED = "an access point that offers it";
const LAPTOP = "laptop";

/** How it is plugged in. */
export interface Plugging {
  readonly behindPhone: boolean;
  /** The family it asks for an address of; null when it asks nobody. */
  readonly asks: Family | null;
  /** A kind of the catalogue instead of a laptop; null for a laptop. */
  readonly kind?: DeviceKind | null;
  /** What it is called where there are two. */
  readonly name?: string;
}

/** Sends the first frame and passes (or stops at) the port it comes in at. Null after a stop. */
export function start(run: ProbeRun, from: ProbeFrom, mac: Mac | null, plugging: Plugging): Started | null {
  const { index } = run;
  const { asks } = plugging;
  if (from.at === "ssid") return startWireless(run, from, { host: null, mac, asks });
  if (from.at === "port") return startAtPort(run, from.port, from.tag, null, mac, plugging);
  const host = index.plan.host.get(from.host);
  if (host === undefined) return null;
  if (host.attachment.at === "ssid") {
    const device = joinsAt(index, host)[0]?.id ?? "";
    return startWireless(
      run,
      { ssid: host.attachment.ssid, device },
      { host, mac, asks: askedBy(host, asks) },
    );
  }
  const port = portOfHost(index, host);
  if (port !== null)
    return startAtPort(run, port, host.tag, host, mac, {
      behindPhone: host.attachment.at === "behind",
      asks: askedBy(host, asks),
    });
  run.journey.stop(
    {
      title: host.name,
      place: "not plugged in",
      says: "is not plugged in anywhere",
      why: "The plan gives it no port and no wireless name.",
      subjects: [{ kind: "host", id: host.id }],
    },
    {
      sentence: `${host.name} is not plugged in anywhere. Give it a port or a wireless name.`,
      subjects: [{ kind: "host", id: host.id }],
      repairs: [],
    },
  );
  return null;
}

/** A static host asks nobody. */
const askedBy = ({ manner }: Host, asks: Family | null): Family | null => (manner === "typed" ? null : asks);

const macFor = (host: Host | null, mac: Mac | null): Mac =>
  mac ?? (host === null ? madeMac(LAPTOP) : macOf(host));

/** What the first frame asks of everybody: RFC 2131 section 4.4.1, RFC 4861 section 6.3.7. */
const ASKS_WORDS = { 4: "sends a DHCP discover", 6: "sends a router solicitation" } as const;

function cannotJoin(
  { journey }: ProbeRun,
  who: string,
  ssid: Ssid | undefined,
  { missing, offered }: { readonly missing: string; readonly offered: boolean },
): void {
  const everywhere: Repair[] =
    ssid === undefined || offered || ssid.at.length === 0
      ? []
      : [
          {
            label: `Offer ${ssid.name} at every access point`,
            planner: "edit-ssid",
            args: { ssid: ssid.id },
            edit: (edits) => edits.patch("ssid", ssid.id, { at: [] }),
          },
        ];
  journey.stop(
    { title: who, place: ssid?.name ?? "wireless", says: `needs ${missing}` },
    {
      sentence: `${who} can't join ${ssid?.name ?? "the wireless name"}: it needs ${missing}.`,
      subjects: ssid === undefined ? [] : [{ kind: "ssid", id: ssid.id }],
      repairs: everywhere,
    },
  );
}

// eslint-disable-next-line complexity -- what joining needs, and each may be missing
function startWireless(
  run: ProbeRun,
  at: { readonly ssid: string; readonly device: string },
  { host, mac, asks }: { readonly host: Host | null; readonly mac: Mac | null; readonly asks: Family | null },
): Started | null {
  const { index, journey } = run;
  const ssid = index.plan.ssid.get(at.ssid);
  const device = index.plan.device.get(at.device);
  const segment = ssid === undefined ? undefined : index.plan.segment.get(ssid.segment);
  const place = ssid === undefined ? null : placeOnAir(index, ssid, at.device, host?.id ?? null);
  const who = host?.name ?? "Laptop";
  const offered = device !== undefined && ssid !== undefined && offers(index, device, ssid);
  if (ssid === undefined || segment === undefined || device === undefined || place === null || !offered) {
    const missing = !offered ? AP_NEEDED : `a cable at ${device?.name ?? "the access point"} that leads on`;
    cannotJoin(run, who, ssid, { missing, offered });
    return null;
  }
  journey.pass({
    title: who,
    place: ssid.name,
    says: `joins ${ssid.name}${asks === null ? "" : ` and ${ASKS_WORDS[asks]}`}`,
    why:
      `${ssid.name} leads into ${segment.name}, ` +
      `${place.at === "inside" ? `VLAN ${place.vid}` : "which is on no VLAN: it goes on untagged"}.`,
    tag: null,
    subjects: [{ kind: "ssid", id: ssid.id }],
  });
  const party: Party = { name: who, mac: macFor(host, mac), place, leg: null, host };
  return {
    party,
    vid: place.at === "inside" ? place.vid : (wantedVid(index, host) ?? 0),
    segment,
    host,
    signIn: null,
  };
}

/** The VLAN that a host belongs in by its segment; null when nothing is said of it. */
export function wantedVid(index: PlanIndex, host: Host | null): number | null {
  const segment = host?.segment === null || host === null ? undefined : index.plan.segment.get(host.segment);
  return segment === undefined ? null : index.vidOf(segment);
}

/** Why its first frame goes where it goes: behind a phone, or asking everybody. */
function whyHere(behindPhone: boolean, asks: keyof typeof ASKS_WORDS | null): string {
  if (behindPhone) return "The phone passes what is untagged through; it tags only its own.";
  return asks === null ? "" : "A new device knows nobody yet, so it asks everybody in its VLAN.";
}

/** The VLAN in which a phone at the port talks, tagged beside the untagged one; null without one. */
export const voiceOf = (port: Port): Vid | null =>
  modeOf(port) === "dataVoice" ? (port.tagged[0] ?? null) : null;

/** The step of signing in; false when it ends there. */
function letIn(
  { index, journey }: ProbeRun,
  signedIn: PortState,
  port: Port,
  { who, tag }: { readonly who: string; readonly tag: Tag },
): boolean {
  const step = {
    title: nameOf(index, "device", port.device),
    place: `port ${port.label}, 802.1X`,
    says: signedIn.says,
    why: signedIn.why,
    subjects: [{ kind: "port" as const, id: port.id }],
    device: port.device,
    ports: [port.id],
  };
  if (signedIn.state === "closed") {
    journey.stop(step, signedIn.cause);
    return false;
  }
  if (signedIn.vid !== null && tag !== null) {
    journey.stop(step, taggedThere(index, port, { who, vid: signedIn.vid, tag }));
    return false;
  }
  journey.pass(step);
  return true;
}

/** Nothing beyond the port takes the frame in. */
function goesNoFurther(
  { index, journey, ids }: ProbeRun,
  port: Port,
  { host, tag, wanted }: { readonly host: Host | null; readonly tag: Tag; readonly wanted: number | null },
): void {
  const name = nameOf(index, "device", port.device);
  const subjects: Subject[] = [{ kind: "port", id: port.id }];
  const segment = index.plan.segment.get(host?.segment ?? "");
  const leg = segment === undefined ? undefined : index.gatewayOf(segment);
  const gap =
    leg === undefined ? null : gapBetween(index, port.device, leg.device, { vid: wanted ?? 0, ids });
  journey.stop(
    {
      title: name,
      place: `port ${port.label} in`,
      says: "goes no further",
      tag,
      subjects,
      device: port.device,
      ports: [port.id],
    },
    gap ?? {
      sentence: `Nothing beyond ${name} port ${port.label} takes the frame (${tagText(tag)}) in.`,
      subjects: [...subjects, { kind: "device", id: port.device }],
      repairs: [],
    },
  );
}

// eslint-disable-next-line max-lines-per-function, complexity, max-params -- a port's guards, in their order
function startAtPort(
  run: ProbeRun,
  portId: string,
  tag: Tag,
  host: Host | null,
  mac: Mac | null,
  { behindPhone, asks, kind = null, name = "Laptop" }: Plugging,
): Started | null {
  const { index, journey, fabric } = run;
  const port = fabric.ports[fabric.portNumber.get(portId) ?? -1];
  const device = port === undefined ? undefined : index.plan.device.get(port.device);
  if (port === undefined || device === undefined) return null;
  const subjects: Subject[] = [{ kind: "port", id: portId }];
  const who = host?.name ?? (kind === null ? name : kind.word);
  const at = `at ${device.name} ${port.label}${behindPhone ? ", behind the phone" : ""}`;
  journey.pass({
    title: who,
    place: at,
    says: asks === null ? "is plugged in" : ASKS_WORDS[asks],
    why: whyHere(behindPhone, asks),
    tag,
    subjects,
    ports: [portId],
  });
  const wanted = wantedVid(index, host);
  const refused =
    portRefuses(run, port, { tag, wanted, shut: index.derived(TREE).shut.has(portId) }) ??
    macLimitStops(run, port, host, behindPhone ? 2 : 1);
  const here = { title: device.name, subjects, device: device.id, ports: [portId] };
  if (refused !== null) {
    const says = port.enabled ? "does not let it in" : "the port is off";
    journey.stop({ ...here, place: `port ${port.label} in`, says, tag }, refused);
    return null;
  }
  const dark = kind === null ? null : tooWeak(index, port, kind);
  if (dark !== null) {
    journey.stop(
      { ...here, place: `port ${port.label}, power`, says: "does not give it enough power" },
      dark,
    );
    return null;
  }
  const asksSignIn = port.guards.signIn && device.bridging === "vlan";
  const signedIn = asksSignIn
    ? portStateFor(run, device, port, { host, speaksItself: kind?.speaksSignIn ?? false, tag })
    : null;
  run.signedIn = signedIn;
  if (signedIn !== null && !letIn(run, signedIn, port, { who, tag })) return null;
  const moved = signedIn?.vid ?? null;
  const place: Party["place"] =
    moved === null
      ? { at: "cable", port: portId, tag, host: host?.id ?? null }
      : { at: "inside", device: device.id, vid: moved, port: portId, ssid: null };
  const party: Party = { name: who, mac: macFor(host, mac), place, leg: null, host };
  const flood = run.flood(place);
  const entry = entryOf(index, flood);
  const isHeard = () => flood.routed.length + flood.heard.length + legsHearing(fabric, flood).length > 0;
  if (entry === null && isHeard()) return onBareWire(run, party, flood);
  if (entry === null) {
    goesNoFurther(run, port, { host, tag, wanted });
    return null;
  }
  const vid = moved ?? (device.bridging === "vlan" ? (classify(port, tag) ?? entry.vid) : entry.vid);
  const segment = index.segmentOn(index.plan.device.get(entry.device)?.domain ?? null, vid) ?? null;
  return { party, vid, segment, host, signIn: signedIn };
}

/** A port that sign-in has put into a VLAN takes only what is untagged: a phone that tags stays outside. */
function taggedThere(
  index: PlanIndex,
  port: Port,
  { who, vid, tag }: { readonly who: string; readonly vid: number; readonly tag: number },
): Cause {
  return {
    sentence:
      `${nameOf(index, "port", port.id)} is in VLAN ${vid} now, ` +
      `untagged, and drops what ${who} sends with tag ${tag}.`,
    subjects: [{ kind: "port", id: port.id }],
    repairs: [],
  };
}

/**
 * No gear that knows VLANs takes the frame in, but somebody is on the wire all the same: a router's own port,
 * or neighbours on a switch without VLANs.
 */
function onBareWire({ index, fabric }: ProbeRun, party: Party, flood: Flood): Started {
  const legs = [
    ...flood.routed.flatMap(
      ({ port }) => index.groups("interfacesByPort").get(fabric.ports[port]?.id ?? "") ?? [],
    ),
    ...legsHearing(fabric, flood).flatMap(({ leg }) => index.plan.interface.get(leg) ?? []),
  ];
  const known = legs.find((leg) => leg.segment !== null)?.segment ?? party.host?.segment ?? null;
  const segment = known === null ? null : (index.plan.segment.get(known) ?? null);
  return { party, vid: wantedVid(index, party.host) ?? 0, segment, host: party.host, signIn: null };
}

/**
 * A port that does not give a kind of device the power it takes over the cable (IEEE 802.3 section 145.2.8);
 * null when it does, or the kind takes none.
 */
function tooWeak(index: PlanIndex, port: Port, kind: DeviceKind): Cause | null {
  const needed = kind.poeClass === null ? 0 : portPowerMw(kind.poeClass);
  if (needed <= port.poeMw) return null;
  return {
    sentence:
      `A ${kind.word} takes ${needed / 1000} W over the cable, and ${nameOf(index, "port", port.id)} ` +
      `gives ${port.poeMw === 0 ? "none" : `${port.poeMw / 1000} W`}.`,
    subjects: [{ kind: "port", id: port.id }],
    repairs: [],
  };
}
