import fc from "fast-check";
import { must } from "../kernel";
import { prefix as net } from "../testing/written";
import {
  addressCount,
  asPrefix6,
  containsPrefix,
  formatPrefix,
  parsePrefix,
  prefixesOverlap,
  type Prefix,
} from "./prefix";
import { freePrefixes, packSubnets, type SubnetWish } from "./pack";
import { subPrefix6, uniqueLocalPrefix } from "./ipv6-plan";

/** A block of 2^16 addresses, wishes of /20 to /30 in it, ranges inside it that are forbidden. */
const wishes = fc
  .array(fc.record({ length: fc.integer({ min: 20, max: 30 }), more: fc.integer({ min: 0, max: 2 }) }), {
    maxLength: 60,
  })
  .map((list): SubnetWish[] =>
    list.map(({ length, more }, i) => ({ key: `s${i}`, length, roomLength: length - more })),
  );
const forbidden = fc
  .array(fc.tuple(fc.nat(0xffff), fc.integer({ min: 18, max: 28 })), { maxLength: 6 })
  .map((list) =>
    list.map(
      ([host, length]): Prefix =>
        net(`10.24.${Math.floor(host / 256)}.${host % 256}/32`) &&
        must(parsePrefix(formatPrefix(around(host, length))), "a prefix"),
    ),
  );
const around = (host: number, length: number): Prefix => {
  const size = 2 ** (32 - length);
  const base = 10 * 2 ** 24 + 24 * 2 ** 16 + Math.floor(host / size) * size;
  return net(`${[24, 16, 8, 0].map((shift) => Math.floor(base / 2 ** shift) % 256).join(".")}/${length}`);
};
const BLOCK = net("10.24.0.0/16");

test("what is placed meets no other, nothing forbidden, lies in the block and has its room", () => {
  fc.assert(
    fc.property(wishes, forbidden, (wanted, kept) => {
      const { placed, unplaced } = packSubnets([BLOCK], wanted, kept);
      expect(placed.size + unplaced.length).toBe(wanted.length);
      const rooms = wanted.flatMap((wish) => {
        const subnet = placed.get(wish.key);
        if (subnet === undefined) return [];
        expect(subnet.length).toBe(wish.length);
        const room = must(
          parsePrefix(`${formatPrefix(subnet).split("/")[0]}/${wish.roomLength}`),
          "the room begins with the subnet",
        );
        return [room];
      });
      for (const [i, room] of rooms.entries()) {
        expect(containsPrefix(BLOCK, room)).toBe(true);
        expect(kept.some((other) => prefixesOverlap(other, room))).toBe(false);
        expect(rooms.slice(i + 1).some((other) => prefixesOverlap(other, room))).toBe(false);
      }
    }),
  );
});

test("all is placed exactly when it can be: of each size, larger wishes fit larger places", () => {
  fc.assert(
    fc.property(wishes, forbidden, (wanted, kept) => {
      const free = freePrefixes(BLOCK, kept);
      const sum = (prefixes: readonly number[]) =>
        prefixes.reduce((total, length) => total + 2 ** (32 - length), 0);
      const fits = Array.from({ length: 33 }, (_, length) => length).every(
        (length) =>
          sum(wanted.filter((w) => w.roomLength <= length).map((w) => w.roomLength)) <=
          free
            .filter((f) => f.length <= length)
            .reduce((total, f) => {
              // A place holds only whole subnets of the sizes that are asked for.
              return total + Number(addressCount(f));
            }, 0),
      );
      expect(packSubnets([BLOCK], wanted, kept).unplaced.length === 0).toBe(fits);
    }),
  );
});

test("an unbroken block is filled to the last address", () => {
  fc.assert(
    fc.property(
      fc.shuffledSubarray(["/17", "/18", "/19", "/20", "/21", "/22", "/23", "/24", "/24"], { minLength: 9 }),
      (lengths) => {
        const wanted = lengths.map((text, i) => ({
          key: `s${i}`,
          length: Number(text.slice(1)),
          roomLength: Number(text.slice(1)),
        }));
        const { placed, unplaced } = packSubnets([BLOCK], wanted, []);
        expect(unplaced).toEqual([]);
        expect(freePrefixes(BLOCK, [...placed.values()])).toEqual([]);
      },
    ),
  );
});

test("the same wishes give the same subnets; one more of the smallest size moves no other", () => {
  fc.assert(
    fc.property(wishes, (wanted) => {
      const first = packSubnets([BLOCK], wanted, []);
      expect(packSubnets([BLOCK], wanted, [])).toEqual(first);
      const more = packSubnets([BLOCK], [...wanted, { key: "more", length: 30, roomLength: 30 }], []);
      for (const [key, subnet] of first.placed) expect(more.placed.get(key)).toEqual(subnet);
    }),
  );
});

test("several blocks are used, and blocks that overlap are no two places", () => {
  const wanted = ["a", "b", "c"].map((key) => ({ key, length: 25, roomLength: 25 }));
  const { placed, unplaced } = packSubnets(
    [net("10.24.0.0/24"), net("10.24.0.0/25"), net("172.20.8.0/25")],
    wanted,
    [],
  );
  expect([...placed.values()].map(formatPrefix).sort()).toEqual([
    "10.24.0.0/25",
    "10.24.0.128/25",
    "172.20.8.0/25",
  ]);
  expect(unplaced).toEqual([]);
});

test("a unique-local prefix is fd and forty bits; anything but five bytes is none", () => {
  expect(formatPrefix(must(uniqueLocalPrefix(Uint8Array.of(0x24, 0x5a, 0x10, 0x3c, 0x01)), "a prefix"))).toBe(
    "fd24:5a10:3c01::/48",
  );
  expect(uniqueLocalPrefix(Uint8Array.of(1, 2, 3, 4))).toBeNull();
});

test.each([
  ["fd24:5a10:3c01::/48", 20, "fd24:5a10:3c01:20::/64"],
  ["fd24:5a10:3c01::/48", 4094, "fd24:5a10:3c01:4094::/64"],
  ["2001:db8:24:100::/56", 20, "2001:db8:24:120::/64"],
  ["2001:db8:24:100::/56", 100, "2001:db8:24:100::/64"],
  ["2001:db8:24:100::/60", 20, "2001:db8:24:100::/64"],
  ["2001:db8:24:100::/64", 20, "2001:db8:24:100::/64"],
])("in %s VLAN %i gets %s", (block, vid, wanted) => {
  expect(formatPrefix(must(subPrefix6(must(asPrefix6(net(block)), block), vid, []), "a sub-prefix"))).toBe(
    wanted,
  );
});

test("a sub-prefix that is taken gives way to the next free one; a /64 that is taken leaves none", () => {
  const block = must(asPrefix6(net("fd24:5a10:3c01::/48")), "a block");
  expect(formatPrefix(must(subPrefix6(block, 20, [net("fd24:5a10:3c01:20::/64")]), "a sub-prefix"))).toBe(
    "fd24:5a10:3c01::/64",
  );
  expect(subPrefix6(must(asPrefix6(net("fd24::/64")), "a block"), 20, [net("fd24::/64")])).toBeNull();
});

test("larger wishes come first whatever their order, those of one size in theirs; blocks by address", () => {
  const wish = (key: string, length: number): SubnetWish => ({ key, length, roomLength: length });
  const wanted = [wish("c", 28), wish("b", 26), wish("d", 27), wish("a", 26), wish("e", 25)];
  const told = ({ placed }: ReturnType<typeof packSubnets>) =>
    [...placed].map(([key, prefix]) => [key, formatPrefix(prefix)]);
  const blocks = [net("10.24.3.0/24"), net("10.24.1.0/25"), net("10.24.2.0/25")];
  expect(told(packSubnets(blocks, wanted, []))).toEqual([
    ["e", "10.24.1.0/25"],
    ["b", "10.24.2.0/26"],
    ["a", "10.24.2.64/26"],
    ["d", "10.24.3.0/27"],
    ["c", "10.24.3.32/28"],
  ]);
  expect(blocks.map(formatPrefix)).toEqual(["10.24.3.0/24", "10.24.1.0/25", "10.24.2.0/25"]);
});

test("a site's IPv4 block is filled before its IPv6 block", () => {
  const wish = { length: 24, roomLength: 24 };
  const { placed } = packSubnets(
    [net("fd00::/24"), net("10.24.0.0/24")],
    [
      { key: "one", ...wish },
      { key: "two", ...wish },
    ],
    [],
  );
  expect([...placed.values()].map(formatPrefix)).toEqual(["10.24.0.0/24", "fd00::/24"]);
});
