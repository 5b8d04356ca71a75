import fc from "fast-check";
import {
  addressCount,
  containsPrefix,
  formatPrefix,
  lengthForHosts,
  parsePrefix,
  prefixesOverlap,
  prefixOf,
  usableIn,
  type Prefix,
} from "./prefix";
import { formatAddress, ipv4, ipv6, parseAddress, parseIpv4, type Address } from "./address";
import { freeRanges, parseRange, rangeCount, type AddressRange, usableRange } from "./range";
import { isGroup, isLocallyAdministered, parseMac } from "./mac";
import { nextFreeAddress, nextFreeSubnet } from "./allocate";
import { must } from "../kernel";

const anyIpv4 = fc.integer({ min: 0, max: 0xffffffff }).map((n) => must(ipv4(n), "in range"));
const anyIpv6 = fc.bigInt({ min: 0n, max: 2n ** 128n - 1n }).map((n) => must(ipv6(n), "in range"));
const anyPrefix4 = fc
  .tuple(anyIpv4, fc.integer({ min: 0, max: 32 }))
  .map(([a, length]) => must(prefixOf(a, length), "a prefix"));
const p = (text: string): Prefix => must(parsePrefix(text), text);
const a = (text: string): Address => must(parseAddress(text), text);

test.each([
  "010.0.0.1",
  "10.1",
  "0xa.0.0.1",
  " 10.0.0.1",
  "10.0.0.1 ",
  "256.0.0.1",
  "1.2.3",
  "1.2.3.4.5",
  "",
  "١.2.3.4",
])("refuses %j as an IPv4 address, since readers differ on it or it is none", (text) =>
  expect(parseIpv4(text)).toBeNull(),
);
test.each([":::", "1::2::3", "12345::", "fe80::1%eth0", "1.2.3.4::", "::1.2.3", "1:2:3:4:5:6:7", "g::"])(
  "refuses %j as an IPv6 address",
  (text) => expect(parseAddress(text)).toBeNull(),
);
test.each(["10.0.0.1/24", "10.0.0.0/33", "10.0.0.0/08", "10.0.0.0", "10.0.0.0/255.255.255.0", "fd00::1/64"])(
  "refuses %j as a plan's prefix",
  (text) => expect(parsePrefix(text)).toBeNull(),
);

test("text and number are one to one, in both families", () => {
  fc.assert(
    fc.property(fc.oneof(anyIpv4, anyIpv6), (address) => parseAddress(formatAddress(address)) === address),
  );
  fc.assert(
    fc.property(anyPrefix4, (prefix) => formatPrefix(p(formatPrefix(prefix))) === formatPrefix(prefix)),
  );
});

test("inclusive counting: .60 to .99 is 40", () => {
  expect(rangeCount(must(parseRange("10.24.20.60 to 10.24.20.99"), "a range"))).toBe(40n);
  expect(rangeCount(must(parseRange("10.24.20.60-10.24.20.60"), "a range"))).toBe(1n);
  expect(parseRange("10.24.20.99-10.24.20.60")).toBeNull();
  expect(parseRange("10.24.20.99-fd00::1")).toBeNull();
});

test("a free subnet fits, meets nothing taken, and none is found only when none is there", () => {
  const block = p("10.24.0.0/20");
  const inside = fc
    .tuple(fc.integer({ min: 0, max: 4095 }), fc.integer({ min: 22, max: 30 }))
    .map(([offset, length]) =>
      must(prefixOf(must(ipv4(Number(block.network) + offset), "in block"), length), "a prefix"),
    );
  fc.assert(
    fc.property(fc.array(inside, { maxLength: 40 }), fc.integer({ min: 20, max: 30 }), (taken, length) => {
      const free = nextFreeSubnet(block, length, taken);
      const every = Array.from({ length: 2 ** (length - 20) }, (_, i) =>
        must(
          prefixOf(must(ipv4(Number(block.network) + i * 2 ** (32 - length)), "in block"), length),
          "a prefix",
        ),
      );
      const first = every.find((candidate) => !taken.some((t) => prefixesOverlap(t, candidate))) ?? null;
      expect(free).toEqual(first);
      if (free !== null) expect(containsPrefix(block, free)).toBe(true);
    }),
  );
});

test("the next address follows the last used, then wraps to the first free, then there is none", () => {
  const block: AddressRange = { first: a("10.24.40.30"), last: a("10.24.40.33") };
  expect(nextFreeAddress(block, [])).toBe(a("10.24.40.30"));
  expect(nextFreeAddress(block, [a("10.24.40.31")])).toBe(a("10.24.40.32"));
  expect(nextFreeAddress(block, [a("10.24.40.31"), a("10.24.40.33")])).toBe(a("10.24.40.30"));
  expect(
    nextFreeAddress(
      block,
      ["30", "31", "32", "33"].map((n) => a(`10.24.40.${n}`)),
    ),
  ).toBeNull();
});

test("free ranges and taken addresses together are the whole, counted once", () => {
  const whole = usableRange(p("10.24.30.0/26"));
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 90 }), { maxLength: 60 }), (offsets) => {
      const taken = offsets.map((o) => must(ipv4(Number(whole.first) - 10 + o), "near"));
      const free = freeRanges(
        whole,
        taken.map((t) => ({ first: t, last: t })),
      );
      const sum = free.reduce((total, range) => total + rangeCount(range), 0n);
      const inside = taken.filter((t) => t >= whole.first && t <= whole.last).length;
      expect(sum).toBe(rangeCount(whole) - BigInt(inside));
    }),
  );
});

test("the length for a number of hosts leaves room for the gateway and no more than needed", () => {
  for (let length = 0; length <= 32; length += 1) {
    const { first, last } = usableRange(p(`0.0.0.0/${length}`));
    expect([length, usableIn(length)]).toEqual([length, Number(last) - Number(first) + 1]);
  }
  expect(lengthForHosts(1)).toBe(30);
  expect(lengthForHosts(2)).toBe(29);
  expect(lengthForHosts(253)).toBe(24);
  expect(lengthForHosts(254)).toBe(23);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 100_000 }), (hosts) => {
      const usable = (length: number) =>
        addressCount(must(prefixOf(must(ipv4(0), "zero"), length), "a prefix")) - 2n;
      const length = lengthForHosts(hosts);
      expect(usable(length) >= BigInt(hosts) + 1n).toBe(true);
      expect(length === 30 || usable(length + 1) < BigInt(hosts) + 1n).toBe(true);
    }),
  );
});

test("MAC addresses: four notations, one canonical form; the two bits of the first octet", () => {
  const forms = ["02:5A:10:3c:00:22", "02-5a-10-3c-00-22", "025a.103c.0022", "025A103C0022"];
  expect(new Set(forms.map(parseMac))).toEqual(new Set(["02:5a:10:3c:00:22"]));
  for (const bad of ["02:5a:10:3c:00", "02:5a-10:3c:00:22", "02:5a:10:3c:00:2g", ""])
    expect(parseMac(bad)).toBeNull();
  const mac = must(parseMac("02:5a:10:3c:00:22"), "a MAC");
  expect([isLocallyAdministered(mac), isGroup(mac)]).toEqual([true, false]);
  expect(isGroup(must(parseMac("01:00:5e:00:00:01"), "a MAC"))).toBe(true);
});

test("the ends of the number space do not wrap", () => {
  expect(formatPrefix(p("0.0.0.0/0"))).toBe("0.0.0.0/0");
  expect(addressCount(p("0.0.0.0/0"))).toBe(2n ** 32n);
  expect(formatAddress(usableRange(p("255.255.255.254/31")).last)).toBe("255.255.255.255");
  expect(
    nextFreeAddress({ first: a("255.255.255.255"), last: a("255.255.255.255") }, [a("255.255.255.255")]),
  ).toBeNull();
});
