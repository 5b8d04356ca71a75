import type { Service } from "../plan";

const service = (name: string, protocol: Service["protocol"], ...ports: [number, number][]): Service => ({
  name,
  protocol,
  ports,
});
const single = (port: number): [number, number] => [port, port];

/**
 * Services by their registered ports (IANA service name registry), offered when a door is opened. What is
 * asked by several protocols stands here several times under one name.
 */
export const SERVICES: readonly Service[] = [
  service("https", "tcp", single(443)),
  service("http", "tcp", single(80)),
  service("ssh", "tcp", single(22)),
  service("dns", "udp", single(53)),
  service("dns", "tcp", single(53)),
  service("dhcp", "udp", [67, 68]),
  service("dhcpv6", "udp", single(547)),
  service("ntp", "udp", single(123)),
  service("ping", "icmp"),
  service("files", "tcp", single(445)),
  service("print", "tcp", single(631), single(9100)),
  service("sip", "udp", single(5060)),
  service("sip", "tcp", single(5060)),
  service("sips", "tcp", single(5061)),
  service("voice media", "udp", [16384, 32767]),
  service("dicom", "tcp", single(104), single(11112)),
  service("video", "tcp", single(554)),
  service("rdp", "tcp", single(3389)),
  service("mail", "tcp", single(465), single(587), single(993)),
  service("radius", "udp", [1812, 1813]),
  service("opc ua", "tcp", single(4840)),
  service("modbus", "tcp", single(502)),
  service("syslog", "udp", single(514)),
  service("mdns", "udp", single(5353)),
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
