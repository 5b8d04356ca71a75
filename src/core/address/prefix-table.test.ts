import fc from "fast-check";
import { containsAddress, ipv4, ipv6, prefixOf, PrefixTable, type Address, type Prefix } from ".";
import { must } from "../kernel";

const v4 = (value: number) => must(ipv4(value), "an IPv4 address");
const v6 = (value: bigint) => must(ipv6(value), "an IPv6 address");
// Few bits vary, so that prefixes hold one another and addresses hit them.
const address4 = fc.integer({ min: 0, max: 63 }).map((low) => v4(0x0a000000 + low * 0x00400000));
const address6 = fc
  .integer({ min: 0, max: 63 })
  .map((low) => v6((0x20010db8n << 96n) + (BigInt(low) << 60n)));
const address: fc.Arbitrary<Address> = fc.oneof(address4, address6);
const prefix: fc.Arbitrary<Prefix> = fc
  .tuple(address, fc.integer({ min: 0, max: 32 }))
  .map(([at, length]) => must(prefixOf(at, typeof at === "number" ? length : length * 2), "a prefix"));

test("what holds an address is found as by looking at every prefix, the longest first", () => {
  fc.assert(
    fc.property(fc.array(prefix, { maxLength: 40 }), fc.array(address), (prefixes, asked) => {
      const table = new PrefixTable<number>();
      for (const [at, prefix] of prefixes.entries()) table.add(prefix, at);
      for (const to of asked) {
        const held = [...prefixes.entries()].filter(([, prefix]) => containsAddress(prefix, to));
        const slow = held.sort(([a, prefix], [b, other]) => other.length - prefix.length || a - b);
        expect(table.holding(to)).toEqual(slow.map(([at]) => at));
      }
    }),
  );
});

test("the whole of a family is a prefix, too, and holds nothing of the other", () => {
  const table = new PrefixTable<string>();
  table.add(must(prefixOf(v4(0), 0), "0.0.0.0/0"), "all");
  expect(table.holding(v4(0xffffffff))).toEqual(["all"]);
  expect(table.holding(v6(1n))).toEqual([]);
});
