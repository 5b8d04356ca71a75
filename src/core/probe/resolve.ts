import { familyOf, formatAddress, type Address } from "../address";
import { type Subject, enteredCause, listed } from "../repairs";
import { nameOf, type Draft } from "../plan";
import type { ProbeBench } from "./bench";
import { explain, passTo } from "./deliver";
import { inspectionStops, passingsOf } from "./inspection";
import type { Hearing, Party } from "../places";
import type { Flood } from "../forwarding";

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
function notFound(bench: ProbeBench, sender: Sender, address: Address, wanted: Party | undefined): void {
  const { host } = sender.party;
  const entered = host === null ? null : enteredCause(bench.index, host, address);
  if (entered !== null)
    bench.journey.stop(
      {
        title: sender.party.name,
        place: asking(address),
        says: "looks for it next door",
        why: "Mask and gateway are entered on it.",
        subjects: subjectOf(sender.party),
      },
      entered,
    );
  else if (wanted !== undefined) explain(bench, sender.party, wanted);
  else nobodyHas(bench, address);
}

function showFound(bench: ProbeBench, flood: Flood, { party, hearing }: Found, address: Address): void {
  passTo(bench, flood, hearing);
  if (party.leg === null) return;
  bench.journey.pass({
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
function sayResolved(bench: ProbeBench, { sender, address, found, flood, backFlood, back }: Resolved): void {
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
  bench.say({
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
  bench.say({
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
  bench: ProbeBench,
  sender: Sender,
  address: Address,
  { known, shows }: { readonly known: Party | null; readonly shows: boolean },
): Found | null {
  const { journey } = bench;
  const flood = bench.flood(sender.party.place);
  const others =
    known === null ? bench.holders(address).filter((party) => !isSame(party, sender.party)) : [known];
  const heard = others.flatMap((party): Found[] => {
    const hearing = bench.hears(sender.party.place, party.place);
    return hearing === null ? [] : [{ party, hearing }];
  });
  const [found] = heard;
  if (found === undefined) {
    notFound(bench, sender, address, others[0]);
    return null;
  }
  const rivals = heard.filter(({ party }) => !isSame(party, found.party));
  if (rivals.length > 0) {
    twoAnswer(
      bench,
      address,
      heard.map(({ party }) => party),
    );
    return null;
  }
  const blocked = inspectionStops(bench, passingsOf(bench, flood, found.hearing), {
    address: sender.address,
    mac: sender.party.mac,
    host: sender.party.host,
    leased: sender.leased,
  });
  if (blocked !== null) {
    journey.stop(inspected(sender.party, address), blocked);
    return null;
  }
  const back = bench.hears(found.party.place, sender.party.place);
  if (back === null) {
    explain(bench, found.party, sender.party);
    return null;
  }
  const backFlood = bench.flood(found.party.place);
  const answerBlocked = inspectionStops(bench, passingsOf(bench, backFlood, back), {
    address,
    mac: found.party.mac,
    host: found.party.host,
    leased: found.party.host !== null && found.party.host.manner !== "typed",
  });
  if (answerBlocked !== null) {
    journey.stop(inspected(found.party, address), answerBlocked);
    return null;
  }
  if (shows) showFound(bench, flood, found, address);
  if (!bench.asksFirst(sender.party, address)) return found;
  // The answer tells both of one another (RFC 826).
  bench.asksFirst(found.party, sender.address);
  sayResolved(bench, { sender, address, found, flood, backFlood, back });
  return found;
}

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

function nobodyHas(bench: ProbeBench, address: Address): void {
  bench.journey.stop(
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
function twoAnswer(bench: ProbeBench, address: Address, parties: readonly Party[]): void {
  const names = listed(parties.map((party) => party.name));
  const subjects = parties.flatMap(subjectOf);
  bench.journey.stop(
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
                edit: (draft: Draft) =>
                  draft.patch("host", host.id, {
                    manner: "dynamic",
                    ...(familyOf(address) === 4 ? { ipv4: null } : { ipv6: null }),
                  }),
              },
            ],
      ),
    },
  );
}

export const deviceName = (bench: ProbeBench, device: string): string =>
  nameOf(bench.index, "device", device);
