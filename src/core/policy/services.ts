import type { Service } from "../plan";

const service = (name: string, protocol: Service["protocol"], ...ports: [number, number][]): Service => ({
  name,
  protocol,
  ports,
});
const one = (port: number): [number, number] => [port, port];

/**
 * Services by their registered ports (IANA service name registry), offered when a door is opened. What is
 * asked by several protocols stands here several times under one name.
 */
export const SERVICES: readonly Service[] = [
  service("https", "tcp", one(443)),
  service("http", "tcp", one(80)),
  service("ssh", "tcp", one(22)),
  service("dns", "udp", one(53)),
  service("dns", "tcp", one(53)),
  service("dhcp", "udp", [67, 68]),
  service("dhcpv6", "udp", one(547)),
  service("ntp", "udp", one(123)),
  service("ping", "icmp"),
  service("files", "tcp", one(445)),
  service("print", "tcp", one(631), one(9100)),
  service("sip", "udp", one(5060)),
  service("sip", "tcp", one(5060)),
  service("sips", "tcp", one(5061)),
  service("voice media", "udp", [16384, 32767]),
  service("dicom", "tcp", one(104), one(11112)),
  service("video", "tcp", one(554)),
  service("rdp", "tcp", one(3389)),
  service("mail", "tcp", one(465), one(587), one(993)),
  service("radius", "udp", [1812, 1813]),
  service("opc ua", "tcp", one(4840)),
  service("modbus", "tcp", one(502)),
  service("syslog", "udp", one(514)),
  service("mdns", "udp", one(5353)),
];

/** What a name of the catalogue stands for; empty for a name that it does not have. */
export const servicesNamed = (name: string): readonly Service[] =>
  SERVICES.filter((service) => service.name === name);

/** The names of some services, each once, in their order. */
export const serviceNames = (services: readonly Service[]): string[] => [
  ...new Set(services.map(({ name }) => name)),
];

/** "dicom, TCP 104 and 11112"; a service without ports is its protocol. */
export function serviceText({ name, protocol, ports }: Service): string {
  const numbers = ports.map(([low, high]) => (low === high ? `${low}` : `${low} to ${high}`));
  const last = numbers.at(-1);
  const list = numbers.length > 1 ? `${numbers.slice(0, -1).join(", ")} and ${last}` : (last ?? "");
  return `${name}, ${protocol.toUpperCase()}${list === "" ? "" : ` ${list}`}`;
}
