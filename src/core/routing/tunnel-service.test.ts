import { asPrefix4, formatAddress, parseIpv4, parsePrefix } from "../address";
import { must } from "../kernel";
import { anInterface, aSegment, testId } from "../testing/build-plan";
import { net6 } from "../testing/written";
import type { Segment } from "../plan";
import { addressIn, farAddress, tunnelService } from ".";

const TUNNEL = { kind: "users", protocol: "udp", port: 51_820, line: null } as const;
const aTunnel = (fields: Partial<Segment> = {}): Segment =>
  aSegment({ name: "By VPN", tunnel: TUNNEL, ...fields });
const net4 = (text: string) => must(asPrefix4(parsePrefix(text)), text);
const far4 = (text: string) => {
  const address = farAddress(aTunnel({ prefixes4: [net4(text)] }), 4);
  return address === null ? null : formatAddress(address);
};

test("a tunnel is asked for by its protocol at its port, and at no other", () => {
  expect(tunnelService(TUNNEL)).toEqual({ name: "vpn", protocol: "udp", ports: [[51_820, 51_820]] });
});

test.each([
  ["10.24.90.0/24", "10.24.90.254"],
  ["10.24.90.0/30", "10.24.90.2"],
  ["10.24.90.0/31", "10.24.90.0"],
  ["10.24.90.7/32", "10.24.90.7"],
  ["10.24.0.0/16", "10.24.255.254"],
  ["10.0.0.0/8", "10.0.255.254"],
])("at the far end of %s somebody has %s", (subnet, address) => expect(far4(subnet)).toBe(address));

test("by IPv6, too; of a family that the tunnel has no subnet of, none", () => {
  const segment = aTunnel({ prefixes6: [net6("fd00:24:0:90::/64")] });
  expect(formatAddress(must(farAddress(segment, 6), "an address"))).toBe("fd00:24:0:90::fffe");
  expect(farAddress(segment, 4)).toBeNull();
});

test("a segment is known by its router's own address there", () => {
  const own = must(parseIpv4("10.24.90.1"), "an address");
  const segment = aTunnel({ prefixes4: [net4("10.24.90.0/24")] });
  const leg = anInterface({
    device: testId("device", "router"),
    name: "vpn",
    segment: segment.id,
    addresses4: [own],
  });
  expect(addressIn(segment, leg, 4)).toBe(own);
  const bare = { ...leg, addresses4: [] };
  // Without one, by who is at the far end; where there is no tunnel nobody stands for it.
  expect(addressIn(segment, bare, 4)).toBe(farAddress(segment, 4));
  expect(addressIn({ ...segment, tunnel: null }, bare, 4)).toBeNull();
});
