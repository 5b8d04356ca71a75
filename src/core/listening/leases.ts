import { formatAddress, parseIpv4, parseMac, type Address } from "../address";
import { expectedLines, judge, leaseExpected, type Expected } from "../commissioning";
import {
  holdsAddress,
  segmentHolding,
  vid as vidOf,
  type Host,
  type PlanIndex,
  type ProbeQuestion,
  type Segment,
} from "../plan";
import { formatLease } from "../planners";
import { asClient, plugKey, probe } from "../probe";
import { counted } from "../repairs";
import { addressesOf } from "../routing";
import {
  lineOf,
  noteOf,
  shortName,
  tagWords,
  vidOfTag,
  type Asked,
  type LaidLine,
  type Listening,
} from "./line";
import { segmentAt } from "./wire";

type Dhcp = NonNullable<Listening["heard"]["facts"]["dhcp"]>;
type Server = Dhcp["servers"][number];
type Offer = Server["offers"][number];

/** Each client is asked for once, however often it was heard. */
function askedBy({ index, asked }: Listening, from: ProbeQuestion["from"], host: Host | null): Asked {
  const tag = from.at === "port" ? from.tag : null;
  const key = `${plugKey(from)} ${tag ?? ""} ${host?.id ?? ""}`;
  const known = asked.get(key);
  if (known !== undefined) return known;
  const question = asClient(from, { to: "address" });
  const outcome = probe(index, question, () => "");
  const made = { question, expected: leaseExpected(index, outcome, host) };
  asked.set(key, made);
  return made;
}

const placed = ({ attachment, manner }: Host): boolean => attachment.at !== "unplaced" && manner !== "typed";

/** As many of a segment are asked for until one is given an address. */
const MOST_ASKED = 5;

/** What any device of a segment is given: at a mirror the client is somewhere else, nobody knows where. */
function askedIn(listening: Listening, vid: number | null): Asked | null {
  const segment = segmentAt(listening.index, listening.port, vid);
  const some =
    segment === null ? [] : listening.index.hostsIn(segment.id).filter(placed).slice(0, MOST_ASKED);
  for (const { id } of some) {
    const { expected } = askedBy(listening, { at: "host", host: id }, null);
    if (expected.is === "lease") return { question: null, expected };
  }
  return null;
}

/** What a client has to be given: a device of the plan, or a laptop at this port; null where nobody can say. */
function askedFor(listening: Listening, client: string, vid: number | null): Asked | null {
  const { index, port, tap } = listening;
  const mac = parseMac(client);
  const own = [...index.plan.host.values()].find(
    (host) => host.mac !== null && host.mac === mac && placed(host),
  );
  if (own !== undefined) return askedBy(listening, { at: "host", host: own.id }, own);
  return tap.position === "mirror"
    ? askedIn(listening, vid)
    : askedBy(listening, { at: "port", port, tag: vid === null ? null : vidOf(vid) }, null);
}

/** What a client shows that took this offer. */
const shownText = ({ address, router, dns }: Offer): string =>
  [
    address,
    `Gateway: ${router[0] ?? "none"}`,
    `Name servers: ${dns.length === 0 ? "none" : dns.join(", ")}`,
  ].join("\n");

/** The addresses that the servers of a segment answer from. */
function serversOf(index: PlanIndex, segment: Segment): ReadonlySet<string> {
  const addresses = index.scopesOf(segment.id).flatMap(({ family, serverDevice, serverHost }): Address[] => {
    if (family !== 4) return [];
    const own = index.plan.host.get(serverHost ?? "")?.ipv4 ?? null;
    const legs = serverDevice === null ? [] : index.interfacesOf(serverDevice);
    return [...(own === null ? [] : [own]), ...legs.flatMap((leg) => addressesOf(leg, 4))];
  });
  return new Set(addresses.map(formatAddress));
}

/** The segment whose clients are answered: of the relay where there is one, else of the tag. */
function segmentOf({ index, port }: Listening, { offers, vid }: Server): Segment | null {
  const [relay] = offers.flatMap(({ giaddr }) => giaddr ?? []);
  const address = relay === undefined ? null : parseIpv4(relay);
  return address === null ? segmentAt(index, port, vidOfTag(vid)) : segmentHolding(index.plan, address);
}

const isIn = (segment: Segment, text: string): boolean => {
  const address = parseIpv4(text);
  return address !== null && holdsAddress(segment, address);
};

function serverLine(listening: Listening, server: Server): LaidLine {
  const { index } = listening;
  const segment = segmentOf(listening, server);
  const about = `DHCP server ${tagWords(listening, vidOfTag(server.vid))}`;
  const heard = `${server.serverId ?? server.ip}, from ${server.mac}`;
  if (segment === null) return noteOf(about, heard, "The plan has no segment here to compare it with.");
  const known = serversOf(index, segment);
  const own = [...known].filter((leased) => isIn(segment, leased));
  const words = (own.length > 0 ? own : [...known]).join(", ");
  const find = `find ${server.mac} and switch its DHCP server off.`;
  const id = server.serverId;
  if (id !== null && own.length > 0 && known.has(id) && !own.includes(id))
    return noteOf(about, heard, `The right server, but for another segment: ${segment.name} has ${words}.`);
  return lineOf(
    { about, planned: known.size === 0 ? "none" : words, heard },
    {
      // Who answers for a relay names itself by that relay's address, or its own.
      isRight: id === null || known.has(id),
      says:
        known.size === 0
          ? `Nobody is to give addresses in ${segment.name}: ${find}`
          : `A second DHCP server answers in ${segment.name}: ${find}`,
    },
  );
}

/** An answer to a client beside what it has to be; `text` is what the client shows then. */
function givenLine(
  { index }: Listening,
  { question, expected }: Asked,
  { about, heard, text }: { readonly about: string; readonly heard: string; readonly text: string },
): LaidLine {
  const judged = judge(index, expected, text);
  if (judged === null) return noteOf(about, heard);
  const line = lineOf(
    { about, planned: plannedText(index, expected), heard },
    { isRight: judged.isRight, says: judged.words },
  );
  return { ...line, given: question === null ? null : { question, text } };
}

/** One offer beside what the client has to be given, and how long it lasts where that differs. */
function offerLines(listening: Listening, server: Server, offer: Offer): LaidLine[] {
  const vid = vidOfTag(server.vid);
  const asked = offer.giaddr === null ? askedFor(listening, offer.client, vid) : null;
  const about = `Given to ${shortName(listening, offer.client)} ${tagWords(listening, vid)}`;
  const text = shownText(offer);
  const heard = text.replaceAll("\n", "; ");
  if (asked === null) return [noteOf(about, heard)];
  const line = givenLine(listening, asked, { about, heard, text });
  const planned = asked.expected.is === "lease" ? asked.expected.leaseSeconds : null;
  if (line.verdict !== "right" || planned === null || offer.lease === null || offer.lease === planned)
    return [line];
  const [own, lasts] = [formatLease(planned), formatLease(offer.lease)];
  const says = `Leases of ${server.serverId ?? server.ip} last ${lasts} and have to last ${own}.`;
  const lease = `Lease ${tagWords(listening, vid)}`;
  return [line, lineOf({ about: lease, planned: own, heard: lasts }, { isRight: false, says })];
}

/** What has to be read, in one line. */
const plannedText = (index: PlanIndex, expected: Expected): string =>
  expectedLines(index, expected)
    .filter(([name]) => name !== "Lease" && name !== "Since")
    .map(([name, value]) => (name === "Address" ? value : `${name}: ${value}`))
    .join("; ");

/** What each client was given last by each server. */
function lastOffers({ offers }: Server): Offer[] {
  const byClient = new Map<string, Offer>();
  for (const offer of offers) {
    const known = byClient.get(offer.client);
    if (known === undefined || offer.type === "ack" || known.type === "offer")
      byClient.set(offer.client, offer);
  }
  return [...byClient.values()];
}

const serverLines = (listening: Listening, server: Server): LaidLine[] => [
  serverLine(listening, server),
  ...lastOffers(server).flatMap((offer) => offerLines(listening, server, offer)),
];

/** An answer to one client alone is heard where everything passes. */
const HEARS_ALL: ReadonlySet<string> = new Set(["mirror", "inline"]);

/** A client that asked, and no offer was heard: that nobody answered is not said lightly. */
function unansweredLine(
  listening: Listening,
  unanswered: Dhcp["discoversWithoutOfferSeen"][number],
): LaidLine {
  const { tap, isWhole } = listening;
  const about = `${shortName(listening, unanswered.mac)} asks ${tagWords(listening, vidOfTag(unanswered.vid))}`;
  const times = counted(unanswered.discovers, "time", "times");
  if (unanswered.namesServerLater)
    return noteOf(about, `${times}; goes on with a server: its answer went to it alone`);
  if (!isWhole || (!unanswered.broadcastFlag && !HEARS_ALL.has(tap.position)))
    return noteOf(
      about,
      `${times}; no offer was heard`,
      "An answer to it alone is not heard here: that proves nothing.",
    );
  const asked = askedFor(listening, unanswered.mac, vidOfTag(unanswered.vid));
  const heard = `${times}; nobody answers`;
  return asked === null ? noteOf(about, heard) : givenLine(listening, asked, { about, heard, text: "none" });
}

/** Who gives addresses, and which. */
export function leaseLines(listening: Listening): LaidLine[] {
  const { dhcp } = listening.heard.facts;
  if (dhcp === undefined) return [];
  return [
    ...dhcp.servers
      .filter(({ messages }) => "offer" in messages || "ack" in messages)
      .flatMap((server) => serverLines(listening, server)),
    ...dhcp.discoversWithoutOfferSeen.map((unanswered) => unansweredLine(listening, unanswered)),
    ...dhcp.naks.map(({ vid, client, server, message }) =>
      noteOf(
        `Refused ${tagWords(listening, vidOfTag(vid))}`,
        `${client} by ${server ?? "a server"}${message === null ? "" : `: ${message}`}`,
        "It asked for an address of another network, or of another server; it asks anew.",
      ),
    ),
    ...dhcp.serversOnlyNamedInRequests.map((id) =>
      noteOf(
        "A server that is only named",
        id,
        "A client comes from another network, or another server answers to it alone.",
      ),
    ),
  ];
}
