import { formatPrefix, isSelfGiven, parseIpv4, type Address } from "../address";
import { grouped } from "../kernel";
import { holdsAddress, nameOf, segmentHolding, type PlanIndex } from "../plan";
import { counted } from "../repairs";
import {
  lineOf,
  noteOf,
  shortName,
  stationName,
  tagWords,
  vidOfTag,
  type LaidLine,
  type Listening,
} from "./line";
import { ABOUT, NOT_THERE, plannedAbout, segmentAt, vlanPort } from "./wire";

type Facts = Listening["heard"]["facts"];
type Claim = NonNullable<Facts["arp"]>["claims"][number];

/** One station alone may have had its address entered wrong: more show in which network one is. */
const LEAST_STATIONS = 2;

/** Of which segment most addresses are that were heard with a tag. */
function mostLine(listening: Listening, vid: number | null, claims: readonly Claim[]): LaidLine[] {
  const { index, port, planned, tap } = listening;
  const names = claims.flatMap(({ ip }) => {
    const address = parseIpv4(ip);
    return address === null ? [] : (segmentHolding(index.plan, address)?.name ?? []);
  });
  const [most] = [...grouped(names, (name) => name).values()].sort((a, b) => b.length - a.length);
  const name = most?.[0];
  const hasLine = vlanPort(index, port) !== null && tap.position !== "mirror";
  if (name === undefined || !hasLine || (most?.length ?? 0) < LEAST_STATIONS) return [];
  const about = ABOUT.addresses(vid);
  const said = plannedAbout(planned, about);
  const where = vid === null ? "untagged" : `in VLAN ${vid}`;
  return [
    lineOf(
      { about, planned: said, heard: name },
      {
        isRight: said === name,
        says:
          said === NOT_THERE
            ? `Stations of ${name} are heard ${where}, where none is planned.`
            : `Stations of ${name} are heard where ${said} is planned.`,
        line: [about, name],
      },
    ),
  ];
}

/** Who has an address by the plan, with the MAC address it has to be. */
function holderOf(
  index: PlanIndex,
  address: Address,
): { readonly name: string; readonly mac: string | null } | null {
  const [holder] = index.holdersOf(address);
  if (holder === undefined) return null;
  const name = "device" in holder ? nameOf(index, "device", holder.device) : holder.name;
  return { name, mac: holder.mac };
}

/** A claim to an address that is another's by the plan, or that no server gave. */
function claimLine(listening: Listening, { ip, macs, vid }: Claim): LaidLine[] {
  const address = parseIpv4(ip);
  if (address === null) return [];
  const claimants = Object.keys(macs).map((mac) => stationName(listening, mac));
  const [about, heard] = [`${ip} ${tagWords(listening, vidOfTag(vid))}`, claimants.join(", ")];
  if (isSelfGiven(address))
    return [noteOf(about, heard, "It gave itself this address: no DHCP server answered it.")];
  const holder = holderOf(listening.index, address);
  if (holder === null || holder.mac === null || Object.keys(macs).every((mac) => mac === holder.mac))
    return [];
  const says = `${heard} says that it has ${ip}, which is ${holder.name}’s.`;
  return [lineOf({ about, planned: `${holder.name}, ${holder.mac}`, heard }, { isRight: false, says })];
}

/** As many stations are named in one line. */
const MOST_NAMED = 5;

/** Stations whose addresses are none of the segment that they are heard in; of segment `told` it was said. */
function strangerLine(
  listening: Listening,
  vid: number | null,
  claims: readonly Claim[],
  told: string | undefined,
): LaidLine[] {
  const segment = segmentAt(listening.index, listening.port, vid);
  if (segment === null || segment.prefixes4.length === 0) return [];
  const strangers = claims.filter(({ ip }) => {
    const address = parseIpv4(ip);
    if (address === null || holdsAddress(segment, address) || isSelfGiven(address)) return false;
    return told === undefined || segmentHolding(listening.index.plan, address)?.name !== told;
  });
  if (strangers.length === 0) return [];
  const named = strangers.slice(0, MOST_NAMED).map(({ ip, macs }) => {
    const names = Object.keys(macs).map((mac) => shortName(listening, mac));
    return `${ip} of ${names.join(", ")}`;
  });
  const left = strangers.length - named.length;
  const heard = `${named.join("; ")}${left > 0 ? `; and ${left} more` : ""}`;
  const count = counted(strangers.length, "address is", "addresses are");
  return [
    lineOf(
      { about: `Strangers ${tagWords(listening, vid)}`, planned: `addresses of ${segment.name}`, heard },
      { isRight: false, says: `${count} none of ${segment.name}.` },
    ),
  ];
}

const duplicateLine = (
  listening: Listening,
  { ip, vid, macs }: { readonly ip: string; readonly vid: number | null; readonly macs: readonly string[] },
): LaidLine =>
  lineOf(
    {
      about: `${ip} ${tagWords(listening, vidOfTag(vid))}`,
      planned: "one station",
      heard: macs.map((mac) => stationName(listening, mac)).join(", "),
    },
    {
      isRight: false,
      says: `${counted(macs.length, "station has", "stations have")} ${ip}: give all but one another address.`,
    },
  );

/** What a router says that is no router of the plan. */
function routerLine(listening: Listening, said: NonNullable<Facts["ra"]>[number]): LaidLine {
  const { index, port } = listening;
  const segment = segmentAt(index, port, vidOfTag(said.vid));
  const about = `IPv6 router ${tagWords(listening, vidOfTag(said.vid))}`;
  const prefixes = said.prefixes.map(({ prefix }) => prefix).join(", ");
  const heard = `${prefixes === "" ? "no prefix" : prefixes}, from ${said.mac}`;
  if (said.routerLifetime === 0) return noteOf(about, heard, "It says that it is no router any more.");
  if (segment === null) return noteOf(about, heard);
  const known = segment.prefixes6.map(formatPrefix);
  const stranger = said.prefixes.find(({ prefix }) => !known.includes(prefix));
  return lineOf(
    { about, planned: known.length === 0 ? "none" : known.join(", "), heard },
    {
      isRight: known.length > 0 && stranger === undefined,
      says:
        known.length === 0
          ? `${said.mac} says that it routes IPv6 in ${segment.name}, which has none: find it.`
          : `${said.mac} gives ${stranger?.prefix ?? "no prefix"}, which is no prefix of ${segment.name}.`,
    },
  );
}

/** Who has which address, and who says that it routes. */
export function addressLines(listening: Listening): LaidLine[] {
  const { arp, ra = [], nd } = listening.heard.facts;
  const claims = (arp?.claims ?? []).filter(({ inner }) => inner === undefined);
  const byVid = grouped(claims, ({ vid }) => vidOfTag(vid));
  const doubles = [
    ...(arp?.duplicates ?? []),
    ...(nd?.duplicates ?? []).map(({ address, ...rest }) => ({ ...rest, ip: address })),
  ];
  const isDouble = (claim: Claim) => Object.keys(claim.macs).length > 1;
  return [
    ...[...byVid].flatMap(([vid, some]) => {
      const most = mostLine(listening, vid, some);
      return [...most, ...strangerLine(listening, vid, some, most[0]?.heard)];
    }),
    ...doubles.map((arpDuplicate) => duplicateLine(listening, arpDuplicate)),
    ...claims.filter((claim) => !isDouble(claim)).flatMap((claim) => claimLine(listening, claim)),
    ...ra.map((said) => routerLine(listening, said)),
  ];
}
