import type { Service } from "../../plan";

/**
 * "name protocol ports", such as "backup tcp 8007", "media udp 5000-5100 6000" or "ping6 icmp"; or the
 * sentence why not.
 */
export function parseService(text: string): { readonly service: Service } | { readonly refusal: string } {
  const match = /^([a-z0-9][a-z0-9 .-]{0,23}?)\s+(tcp|udp|icmp)((?:[\s,]+\d{1,5}(?:-\d{1,5})?)*)$/.exec(
    text.trim().toLowerCase(),
  );
  const how = `write a name, tcp, udp or icmp, and the ports: backup tcp 8007, media udp 5000-5100.`;
  if (match === null) return { refusal: `"${text}" is not a service; ${how}` };
  const [, name = "", protocol = "tcp", list = ""] = match;
  const ports = list
    .split(/[\s,]+/)
    .filter((part) => part !== "")
    .map((part): [number, number] => {
      const [low = 0, high = low] = part.split("-").map(Number);
      return [low, high];
    });
  const wrong = ports.find(([low, high]) => low > high || high > 65535 || low < 1);
  if (wrong !== undefined)
    return {
      refusal:
        `${wrong[0]}${wrong[0] === wrong[1] ? "" : ` to ${wrong[1]}`} ` +
        "is no port range; ports run from 1 to 65535, low to high.",
    };
  if (protocol === "icmp" && ports.length > 0) return { refusal: "ICMP has no ports; leave them out." };
  if (ports.length > 16) return { refusal: "A service has at most 16 port ranges; make two of it." };
  return { service: { name, protocol: protocol as Service["protocol"], ports } };
}
