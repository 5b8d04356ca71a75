import { familyOf, formatAddress, type Address } from "../address";
import { type Subject, enteredCause, listed } from "../repairs";
import { nameOf, type PlanEdits } from "../plan";
import type { ProbeRun } from "./run";
import { explain, passTo } from "./deliver";
import { inspectionStops, sourceStops, switchHopsOf, type Claim, type SwitchHop } from "./inspection";
import type { Hearing, Party } from "../places";
import type { Flood } from "../forwarding";
import type { Cause } from "./step";

/** Whoever sends into a segment, with the address it does so from. */
export interface Sender {
  readonly party: Party;
  readonly address: Address;
  readonly leased: boolean;
}

export const subjectOf = ({ leg, host }: Party): Subject[] => {
  if (leg !== null) return [{ kind: "interface", id: leg.id }];
  if (host !== null) return [{ kind: "host", id: host.id }];
  return [];
};
/** The word for how neighbours are found: ARP (RFC 826) or neighbour discovery (RFC 4861). */
const asking = (address: Address): string => (familyOf(address) === 4 ? "ARP" : "neighbour discovery");

interface Found {
  readonly party: Party;
  readonly hearing: Hearing;
}

/** Nobody answers: what is entered on the sender is wrong, who has it does not hear, or nobody has it. */
function notFound(run: ProbeRun, sender: Sender, address: Address, wanted: Party | undefined): void {
  const { host } = sender.party;
  const entered = host === null ? null : enteredCause(run.index, host, address);
  if (entered !== null)
    run.journey.stop(
      {
        title: sender.party.name,
        place: asking(address),
        says: "looks for it next door",
        why: "Mask and gateway are entered on it.",
        subjects: subjectOf(sender.party),
      },
      entered,
    );
  else if (wanted !== undefined) explain(run, sender.party, wanted);
  else nobodyHas(run, address);
}

function showFound(run: ProbeRun, flood: Flood, { party, hearing }: Found, address: Address): void {
  passTo(run, flood, hearing);
  if (party.leg === null) return;
  run.journey.pass({
    title: party.name,
    place: formatAddress(address),
    says: `answers ${asking(address)}`,
    why: `${formatAddress(address)} is at ${party.mac}.`,
    subjects: subjectOf(party),
    device: party.leg.device,
  });
}

interface Resolved {
  readonly sender: Sender;
  readonly address: Address;
  readonly found: Found;
  readonly flood: Flood;
  readonly backFlood: Flood;
  readonly back: Hearing;
}

/** The question to everybody and the answer to the one who asked: ARP (RFC 826), or RFC 4861 section 4.3. */
function sayResolved(run: ProbeRun, { sender, address, found, flood, backFlood, back }: Resolved): void {
  const [asks, has] = [sender.party.mac, found.party.mac];
  const isFour = familyOf(address) === 4;
  const question = { what: `who has ${formatAddress(address)}?`, from: asks, to: null, flood, reached: null };
  const answer = {
    what: `${formatAddress(address)} is at ${has}`,
    from: has,
    to: asks,
    flood: backFlood,
    reached: back,
  };
  run.say({
    ...question,
    content: isFour
      ? {
          kind: "arp",
          asks: true,
          senderMac: asks,
          senderAddress: sender.address,
          targetMac: null,
          targetAddress: address,
        }
      : { kind: "neighbour", asks: true, src: sender.address, dst: address, target: address, mac: asks },
  });
  run.say({
    ...answer,
    content: isFour
      ? {
          kind: "arp",
          asks: false,
          senderMac: has,
          senderAddress: address,
          targetMac: asks,
          targetAddress: sender.address,
        }
      : { kind: "neighbour", asks: false, src: address, dst: sender.address, target: address, mac: has },
  });
}

/**
 * Finds who has an address next door, and that the answer comes back: null after a stop. `known` is who it is
 * when the sender has been told by an advertisement. Adds the steps of the way only when `shows`.
 */
export function resolve(
  run: ProbeRun,
  sender: Sender,
  address: Address,
  { known, shows }: { readonly known: Party | null; readonly shows: boolean },
): Found | null {
  const { journey } = run;
  const flood = run.flood(sender.party.place);
  const others =
    known === null ? run.holders(address).filter((party) => !isSame(party, sender.party)) : [known];
  const heard = others.flatMap((party): Found[] => {
    const hearing = run.hears(sender.party.place, party.place);
    return hearing === null ? [] : [{ party, hearing }];
  });
  const [found] = heard;
  if (found === undefined) {
    notFound(run, sender, address, others[0]);
    return null;
  }
  const rivals = heard.filter(({ party }) => !isSame(party, found.party));
  if (rivals.length > 0) {
    twoAnswer(
      run,
      address,
      heard.map(({ party }) => party),
    );
    return null;
  }
  const blocked = disbelieved(run, switchHopsOf(run, flood, found.hearing), {
    address: sender.address,
    mac: sender.party.mac,
    host: sender.party.host,
    leased: sender.leased,
  });
  if (blocked !== null) {
    journey.stop(inspected(sender.party, address), blocked);
    return null;
  }
  const back = run.hears(found.party.place, sender.party.place);
  if (back === null) {
    explain(run, found.party, sender.party);
    return null;
  }
  const backFlood = run.flood(found.party.place);
  const answerBlocked = disbelieved(run, switchHopsOf(run, backFlood, back), {
    address,
    mac: found.party.mac,
    host: found.party.host,
    leased: found.party.host !== null && found.party.host.manner !== "typed",
  });
  if (answerBlocked !== null) {
    journey.stop(inspected(found.party, address), answerBlocked);
    return null;
  }
  if (shows) showFound(run, flood, found, address);
  if (!run.asksFirst(sender.party, address)) return found;
  // The answer tells both of one another (RFC 826).
  run.asksFirst(found.party, sender.address);
  sayResolved(run, { sender, address, found, flood, backFlood, back });
  return found;
}

/**
 * What on the way does not believe that somebody has an address: ARP inspection, or its port's source check.
 */
const disbelieved = (run: ProbeRun, hops: readonly SwitchHop[], claim: Claim): Cause | null =>
  inspectionStops(run, hops, claim) ?? sourceStops(run, hops, claim);

const isSame = (a: Party, b: Party): boolean =>
  (a.leg !== null && a.leg.id === b.leg?.id) ||
  (a.host !== null && a.host.id === b.host?.id) ||
  (a.leg === null && b.leg === null && a.host === null && b.host === null && a.mac === b.mac);

const inspected = (party: Party, address: Address) => ({
  title: party.name,
  place: asking(address),
  says: "is not believed",
  why: "A switch on the way checks who may say that.",
  subjects: subjectOf(party),
});

function nobodyHas(run: ProbeRun, address: Address): void {
  run.journey.stop(
    {
      title: formatAddress(address),
      place: asking(address),
      says: "nobody answers",
      why: "Nothing in the plan has this address.",
    },
    {
      sentence: `Nobody answers for ${formatAddress(address)}: nothing in the plan has that address.`,
      subjects: [],
      repairs: [],
    },
  );
}

/** Two answer for one address: whoever is asked last wins, and it changes. */
function twoAnswer(run: ProbeRun, address: Address, parties: readonly Party[]): void {
  const names = listed(parties.map((party) => party.name));
  const subjects = parties.flatMap(subjectOf);
  run.journey.stop(
    {
      title: names,
      place: formatAddress(address),
      says: "both answer",
      why: "Whoever answered last is believed, and that changes from minute to minute.",
      subjects,
    },
    {
      sentence: `${names} both have ${formatAddress(address)}, and both answer.`,
      subjects,
      repairs: parties.flatMap(({ host }) =>
        host === null
          ? []
          : [
              {
                label: `Let ${host.name} ask for its address instead`,
                planner: "edit-host",
                args: { host: host.id },
                edit: (edits: PlanEdits) =>
                  edits.patch("host", host.id, {
                    manner: "dynamic",
                    ...(familyOf(address) === 4 ? { ipv4: null } : { ipv6: null }),
                  }),
              },
            ],
      ),
    },
  );
}

export const deviceName = (run: ProbeRun, device: string): string => nameOf(run.index, "device", device);
