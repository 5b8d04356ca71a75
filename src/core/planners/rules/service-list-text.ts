import { equal, grouped } from "../../kernel";
import { MOST_SERVICES, type PlanIndex, type Service } from "../../plan";
import { catalogueOf } from "../../policy";
import { parseService } from "../segments/service-text";
import { pieces } from "./side-text";

/** The services that have a name: of the catalogue, the site's own, and those that its walls name. */
const namedServices = ({ plan }: PlanIndex): Service[] => [
  ...catalogueOf(plan),
  ...[...plan.wall.values()].flatMap(({ services }) => services),
];

/** "443/tcp" and "tcp/443" as "tcp 443". */
const inOrder = (text: string): string =>
  text.replace(/^([\d -]+)\/(tcp|udp)$/i, "$2 $1").replace(/^(tcp|udp)\s*[/:]\s*/i, "$1 ");

/** Ports as sentences say them, "1024 to 3388, 3390 and 4000", as they are typed. */
const asWritten = (text: string): string =>
  text.replace(/(\d)\s+to\s+(?=\d)/gi, "$1-").replace(/(\d)\s+and\s+(?=\d)/gi, "$1, ");

const isOwnName = ({ name, protocol }: Service): boolean => name.startsWith(protocol);

/** What a piece without a name of its own is called: its protocol and first ports. */
const ownName = (text: string): string => text.toLowerCase().replace(/\s+/g, " ").slice(0, 24).trim();

/**
 * One piece of a list that is no name, such as "tcp 443": a number alone goes on with the protocol before it.
 * Null where it can't be read.
 */
export function readPart(piece: string, protocol: string): Service | null {
  const whole = inOrder(/^\d[\d -]*$/.test(piece) && protocol !== "" ? `${protocol} ${piece}` : piece);
  const read = parseService(/^(tcp|udp|icmp)\b/i.test(whole) ? `x ${whole}` : whole);
  if ("refusal" in read) return null;
  return read.service.name === "x" ? { ...read.service, name: ownName(whole) } : read.service;
}

/** Services as they are written: names, or protocols with ports; none is everything. A sentence where not. */
export function readServices(index: PlanIndex, text: string): readonly Service[] | string {
  const services: Service[] = [];
  const known = namedServices(index);
  let protocol = "";
  for (const piece of pieces(asWritten(text))) {
    if (/^(any|all|everything|open|\*)$/i.test(piece)) continue;
    const byName = known.filter(({ name }) => name === piece.toLowerCase());
    if (byName.length > 0) {
      services.push(
        ...byName.filter((service, at) => byName.findIndex((other) => equal(other, service)) === at),
      );
      continue;
    }
    const service = readPart(piece, protocol);
    if (service === null)
      return `"${piece}" is not a service: write a name such as https, or tcp 443, udp 5000-5100, icmp.`;
    protocol = service.protocol;
    services.push(service);
  }
  return services.length > MOST_SERVICES
    ? `${services.length} services are too many for one rule; it takes ${MOST_SERVICES}.`
    : services;
}

const partText = ({ protocol, ports }: Pick<Service, "protocol" | "ports">): string =>
  [protocol, ...ports.map(([low, high]) => (low === high ? `${low}` : `${low}-${high}`))].join(" ");

/** Protocols with ports as they are read. */
export const partsText = (parts: readonly Pick<Service, "protocol" | "ports">[]): string[] =>
  parts.map(partText);

/** Services as `readServices` reads them. */
export function servicesText(index: PlanIndex, services: readonly Service[]): string {
  const known = grouped(namedServices(index), ({ name }) => name);
  const has = (other: Service) => services.some((service) => equal(service, other));
  // A name stands for all of its parts: where some are missing, the ports are said.
  const isWhole = ({ name }: Service): boolean => known.get(name)?.every(has) ?? false;
  const isKnown = (service: Service): boolean =>
    known.get(service.name)?.some((known) => equal(known, service)) ?? false;
  const texts = services.map((service) =>
    isKnown(service) && isWhole(service)
      ? service.name
      : `${isOwnName(service) ? "" : `${service.name} `}${partText(service)}`,
  );
  return texts.length === 0 ? "any" : [...new Set(texts)].join(", ");
}
