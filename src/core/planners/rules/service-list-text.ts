import { equal } from "../../kernel";
import type { PlanIndex, Service } from "../../plan";
import { SERVICES } from "../../policy";
import { parseService } from "../segments/service-text";
import { pieces } from "./side-text";

const MOST = 32;

/** The services that have a name: those of the catalogue, and those that the site's walls and rules name. */
const namedServices = ({ plan }: PlanIndex): Service[] => [
  ...SERVICES,
  ...[...plan.wall.values()].flatMap(({ services }) => services),
];

/** "443/tcp" and "tcp/443" as "tcp 443". */
const inOrder = (text: string): string =>
  text.replace(/^([\d -]+)\/(tcp|udp)$/i, "$2 $1").replace(/^(tcp|udp)\s*[/:]\s*/i, "$1 ");

const isOwnName = ({ name, protocol }: Service): boolean => name.startsWith(protocol);

/** What a piece without a name of its own is called: its protocol and first ports. */
const ownName = (text: string): string => text.toLowerCase().replace(/\s+/g, " ").slice(0, 24).trim();

function withPorts(text: string): Service | string {
  const read = parseService(/^(tcp|udp|icmp)\b/i.test(text) ? `x ${text}` : text);
  if ("refusal" in read) return read.refusal;
  return read.service.name === "x" ? { ...read.service, name: ownName(text) } : read.service;
}

/** Services as they are written: names, or protocols with ports; none is everything. A sentence where not. */
export function readServices(index: PlanIndex, text: string): readonly Service[] | string {
  const services: Service[] = [];
  const known = namedServices(index);
  let protocol = "";
  for (const piece of pieces(text)) {
    if (/^(any|all|everything|open|\*)$/i.test(piece)) continue;
    const byName = known.filter(({ name }) => name === piece.toLowerCase());
    if (byName.length > 0) {
      services.push(...byName.filter((service, at) => byName.findIndex((one) => equal(one, service)) === at));
      continue;
    }
    // "tcp 443, 8443": a number alone goes on with the protocol before it.
    const whole = inOrder(/^\d[\d -]*$/.test(piece) && protocol !== "" ? `${protocol} ${piece}` : piece);
    const service = withPorts(whole);
    if (typeof service === "string")
      return `"${piece}" is not a service: write a name such as https, or tcp 443, udp 5000-5100, icmp.`;
    protocol = service.protocol;
    services.push(service);
  }
  return services.length > MOST
    ? `${services.length} services are too many for one rule; it takes ${MOST}.`
    : services;
}

function serviceText(known: readonly Service[], service: Service): string {
  const { name, protocol, ports } = service;
  if (known.some((one) => equal(one, service))) return name;
  const numbers = ports.map(([low, high]) => (low === high ? `${low}` : `${low}-${high}`)).join(" ");
  return `${isOwnName(service) ? "" : `${name} `}${protocol}${numbers === "" ? "" : ` ${numbers}`}`;
}

/** Services as `readServices` reads them. */
export function servicesText(index: PlanIndex, services: readonly Service[]): string {
  const known = namedServices(index);
  const texts = services.map((service) => serviceText(known, service));
  return texts.length === 0 ? "any" : [...new Set(texts)].join(", ");
}
