import type { Address, Ipv4, Mac } from "../address";
import type { Content } from "../probe";
import { addressBytes, big, macBytes, utf8 } from "./bytes";
import { ipv4Packet, udp } from "./internet";

type Dhcp = Extract<Content, { readonly kind: "dhcp" }>;

const NOBODY = 0 as Ipv4;
const EVERYBODY = 0xffff_ffff as Ipv4;
const TYPES = { discover: 1, offer: 2, request: 3, ack: 5 } as const;
const COOKIE = [99, 130, 83, 99];

const option = (code: number, value: readonly number[]): number[] =>
  value.length === 0 ? [] : [code, value.length, ...value.slice(0, 255)];
const addressOption = (code: number, ...addresses: readonly (Address | null)[]): number[] =>
  option(
    code,
    addresses.flatMap((address) => (typeof address === "number" ? addressBytes(address) : [])),
  );

/** The transaction's number, which all four messages share: from the client's MAC address. */
const transaction = (client: Mac): number[] => macBytes(client).slice(2);

/** What a message says (RFC 2132): its type, and for a server's answer what the client is to use. */
function optionsOf({
  type,
  client,
  given,
  server,
  maskBits,
  router,
  dns,
  leaseSeconds,
  domain,
}: Dhcp): number[] {
  const head = option(53, [TYPES[type]]);
  const identifier = option(61, [1, ...macBytes(client)]);
  const wants = option(55, [1, 3, 6, 15, 51]);
  if (type === "discover") return [...head, ...identifier, ...wants, 255];
  if (type === "request")
    return [...head, ...identifier, ...addressOption(50, given), ...addressOption(54, server), ...wants, 255];
  const mask = 2 ** 32 - 2 ** (32 - maskBits);
  return [
    ...head,
    ...addressOption(54, server),
    ...option(51, big(leaseSeconds, 4)),
    ...option(1, big(mask, 4)),
    ...addressOption(3, router),
    ...addressOption(6, ...dns),
    ...option(15, utf8(domain)),
    255,
  ];
}

/**
 * A DHCP message (RFC 2131 section 2) in its packet: a client without an address speaks to all, the server to
 * the client.
 */
export function dhcpPacket(content: Dhcp, number: number): number[] {
  const { type, client, given, server, relay } = content;
  const asks = type === "discover" || type === "request";
  const address = (address: Address | null) =>
    typeof address === "number" ? addressBytes(address) : [0, 0, 0, 0];
  const body = [
    asks ? 1 : 2,
    1,
    6,
    0,
    ...transaction(client),
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    ...(asks ? [0, 0, 0, 0] : address(given)),
    0,
    0,
    0,
    0,
    ...(asks ? [0, 0, 0, 0] : address(relay)),
    ...macBytes(client),
    ...Array.from({ length: 10 + 64 + 128 }, () => 0),
    ...COOKIE,
    ...optionsOf(content),
  ];
  // At least as long as a BOOTP message (RFC 1542 section 2.1).
  const whole = [...body, ...Array.from({ length: Math.max(0, 300 - body.length) }, () => 0)];
  const [src, dst] = asks ? [NOBODY, EVERYBODY] : [server ?? NOBODY, given ?? EVERYBODY];
  return ipv4Packet(src, dst, {
    protocol: 17,
    ttl: 64,
    payload: udp(src, dst, { sport: asks ? 68 : 67, dport: asks ? 67 : 68, data: whole }),
    identification: number,
  });
}
