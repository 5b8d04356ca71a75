import type { Address } from "../address";
import { byNaturalText, grouped, must } from "../kernel";
import {
  afterEdits,
  nameOf,
  PlanEdits,
  signInPorts,
  type Device,
  type Host,
  type PlanIndex,
  type Port,
  type SignIn,
  type SignInPort,
} from "../plan";
import { asClient, probe, type Outcome, type PortState } from "../probe";
import { Alike, type AtPort, type Told } from "./alike";

/** What is asked of a port: all servers there, the first one down, all of them down. */
export type Situation = "well" | "firstDown" | "allDown";
export const SITUATIONS: readonly Situation[] = ["well", "firstDown", "allDown"];

/** What becomes of one who is plugged in. */
export interface Entry {
  /** How the port lets it in; "unasked" where something else stops it before. */
  readonly how: PortState["state"] | "unasked";
  /** Where it is then: the segment of its address, else of its VLAN; null where it is nowhere. */
  readonly segment: string | null;
  readonly address: Address | null;
  readonly says: string;
  readonly why: string;
  /** Whether that is something else than is meant. */
  readonly differs: boolean;
}

/** A port and one of those who are planned there; nobody where nothing is planned. */
export interface WhoRow {
  readonly device: Device;
  readonly port: Port;
  readonly profile: SignIn | null;
  readonly host: Host | null;
  /** Null for nobody. */
  readonly cells: Readonly<Record<Situation, Entry>> | null;
  /** What becomes of something that is in no register and does not sign in, with all servers there. */
  readonly stranger: Entry;
}

const nobody = () => "";

/** The plan with hosts unplugged: a server that is down answers nobody, whatever it is asked. */
function without(index: PlanIndex, hosts: readonly string[]): PlanIndex {
  if (hosts.length === 0) return index;
  const edits = new PlanEdits(index.plan);
  for (const id of hosts)
    if (edits.get("host", id) !== undefined) edits.patch("host", id, { attachment: { at: "unplaced" } });
  return must(afterEdits(index, edits), "hosts can be unplugged");
}

/** The servers that are taken as down. */
function downIn(situation: Situation, profile: SignIn | null): readonly string[] {
  const servers = profile?.servers ?? [];
  return { well: [], firstDown: servers.slice(0, 1), allDown: servers }[situation];
}

/** A plan to ask, with what those who are alike come to. */
interface Asked {
  readonly index: PlanIndex;
  readonly alike: Alike;
}

/** The plans of each situation, made once for each set of servers. */
class Situations {
  readonly #index: PlanIndex;
  readonly #made = new Map<string, Asked>();

  constructor(index: PlanIndex) {
    this.#index = index;
  }

  of(situation: Situation, profile: SignIn | null): Asked {
    const down = downIn(situation, profile);
    const key = down.join();
    const known = this.#made.get(key);
    if (known !== undefined) return known;
    const index = without(this.#index, down);
    const made = { index, alike: new Alike(index, this.#sameAddresses(down)) };
    this.#made.set(key, made);
    return made;
  }

  /** What is known with all there, where those that are down give nobody an address. */
  #sameAddresses(down: readonly string[]): Alike | null {
    if (down.length === 0) return null;
    const serves = [...this.#index.plan.scope.values()].some(
      ({ serverHost }) => serverHost !== null && down.includes(serverHost),
    );
    return serves ? null : this.of("well", null).alike;
  }
}

/** The plan in a situation of a profile's servers. */
export const planIn = (index: PlanIndex, situation: Situation, profile: SignIn): PlanIndex =>
  without(index, downIn(situation, profile));

/** Where somebody is after a probe: by its address, else by the VLAN it was put into. */
function segmentAfter(index: PlanIndex, device: Device, { lease, signIn }: Outcome): string | null {
  if (lease !== null) return lease.segment;
  const vid = signIn?.vid ?? null;
  return vid === null ? null : (index.segmentOn(device.domain, vid)?.id ?? null);
}

const isOut = (how: Entry["how"]): boolean => how === "closed" || how === "limited";

function entryOf(index: PlanIndex, device: Device, outcome: Outcome, differs: boolean): Entry {
  const { signIn, lease, cause } = outcome;
  const how = signIn?.state ?? "unasked";
  const failed = cause === null || isOut(how) ? "" : ` ${cause.sentence}`;
  return {
    how,
    segment: how === "closed" ? null : segmentAfter(index, device, outcome),
    address: lease?.address ?? null,
    says: signIn?.says ?? cause?.sentence ?? "",
    why: `${signIn?.why ?? ""}${failed}`.trim(),
    differs,
  };
}

/** A server that is taken as down is asked nothing. */
const downItself = (host: Host): Entry => ({
  how: "unasked",
  segment: null,
  address: null,
  says: "is down itself",
  why: `${host.name} is one of the servers that are taken as down here.`,
  differs: false,
});

/** What is known without asking. */
function toldEntry(
  index: PlanIndex,
  device: Device,
  { state, lease, stopped }: Told,
  differs: boolean,
): Entry {
  const put = state.vid === null ? undefined : index.segmentOn(device.domain, state.vid);
  return {
    how: state.state,
    segment: lease?.segment ?? put?.id ?? null,
    address: lease?.address ?? null,
    says: state.says,
    why: stopped === null ? state.why : `${state.why} ${stopped}`.trim(),
    differs,
  };
}

/** What becomes of a planned host in a situation. Staying out while no server answers can be meant. */
function hostEntry(
  { index, alike }: Asked,
  at: AtPort & { readonly host: Host },
  situation: Situation,
): Entry {
  const told = alike.tell(at);
  if (told !== null) {
    const staysOut = told.stopped === null && situation === "allDown";
    return toldEntry(index, at.device, told, told.lease === null && !staysOut);
  }
  const outcome = probe(index, asClient({ at: "host", host: at.host.id }, { to: "address" }), nobody);
  alike.note(at, outcome);
  const isWrong = outcome.cause !== null || outcome.advice !== null;
  const staysOut = situation === "allDown" && outcome.signIn?.state === "closed";
  return entryOf(index, at.device, outcome, isWrong && !staysOut);
}

/** What becomes of something that nobody knows: meant are visitors and those that fail, or nothing at all. */
function strangerEntry({ index, alike }: Asked, device: Device, port: Port): Entry {
  const at = { device, port, host: null };
  const isMeant = (how: Entry["how"]) => isOut(how) || how === "visitors" || how === "failed";
  const told = alike.tell(at);
  if (told !== null) return toldEntry(index, device, told, told.lease !== null && !isMeant(told.state.state));
  const outcome = probe(index, asClient({ at: "port", port: port.id, tag: null }, { to: "address" }), nobody);
  alike.note(at, outcome);
  return entryOf(
    index,
    device,
    outcome,
    outcome.lease !== null && !isMeant(outcome.signIn?.state ?? "unasked"),
  );
}

/** The switches with ports that ask for a sign-in, by name. */
export const signInSwitches = (index: PlanIndex): Device[] =>
  [...new Set(signInPorts(index).map(({ device }) => device))].sort(
    (a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id),
  );

/** The ports that ask for a sign-in, in the order of devices by name and of their ports. */
function asking(index: PlanIndex, at: string | null): SignInPort[] {
  const byDevice = grouped(signInPorts(index), ({ device }) => device.id);
  return signInSwitches(index)
    .filter(({ id }) => at === null || id === at)
    .flatMap(({ id }) =>
      [...(byDevice.get(id) ?? [])].sort(
        (a, b) => a.port.position - b.port.position || byNaturalText(a.port.label, b.port.label),
      ),
    );
}

/**
 * Who gets in at every port that asks for a sign-in, of one switch or of all: a row for each port and host that
 * is planned there, one for a port without any.
 */
export function whoGetsIn(index: PlanIndex, at: string | null = null): WhoRow[] {
  const situations = new Situations(index);
  const now = situations.of("well", null);
  return asking(index, at).flatMap(({ device, port, profile }): WhoRow[] => {
    const row = { device, port, profile, stranger: strangerEntry(now, device, port) };
    const hosts = [...index.hostsAt(port.id)].sort(
      (a, b) =>
        Number(a.attachment.at === "behind") - Number(b.attachment.at === "behind") ||
        byNaturalText(a.name, b.name),
    );
    if (hosts.length === 0) return [{ ...row, host: null, cells: null }];
    return hosts.map((host) => {
      const in_ = (situation: Situation) =>
        downIn(situation, profile).includes(host.id)
          ? downItself(host)
          : hostEntry(situations.of(situation, profile), { device, port, host }, situation);
      return {
        ...row,
        host,
        cells: { well: in_("well"), firstDown: in_("firstDown"), allDown: in_("allDown") },
      };
    });
  });
}

/** How a port let somebody in, in two or three words. */
export const HOW_WORDS: Readonly<Record<Entry["how"], string>> = {
  "signed in": "signs in",
  "by MAC address": "by MAC address",
  "with another": "with another",
  visitors: "visitors",
  failed: "failed",
  "server down": "no server",
  watched: "watched",
  "not described": "no profile",
  limited: "limited",
  closed: "stays out",
  unasked: "not asked",
};

/** What an entry comes to, in words: where it is, or that it stays out. */
export function entryText(index: PlanIndex, { how, segment }: Entry): string {
  if (how === "closed") return HOW_WORDS.closed;
  const where = segment === null ? "no address" : nameOf(index, "segment", segment);
  return `${where}, ${HOW_WORDS[how]}`;
}
