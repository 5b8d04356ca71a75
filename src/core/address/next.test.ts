import fc from "fast-check";
import { must } from "../kernel";
import { parseAddress, type Address } from "./address";
import { nextFreeAddress, nextFreeSubnet } from "./allocate";
import { subPrefix6, uniqueLocalPrefix } from "./ipv6-plan";
import { freePrefixes, packSubnets } from "./pack";
import {
  asPrefix6,
  containsAddress,
  formatPrefix,
  parsePrefix,
  prefixOf,
  type Prefix,
  type Prefix6,
} from "./prefix";

// What is given out next: a subnet, an address, and many subnets at once.

const p = (text: string): Prefix => must(parsePrefix(text), text);
const p6 = (text: string): Prefix6 => must(asPrefix6(p(text)), text);
const a = (text: string): Address => must(parseAddress(text), text);
const range = (first: string, last: string) => ({ first: a(first), last: a(last) });
const texts = (prefixes: Iterable<Prefix>) => [...prefixes].map(formatPrefix);

describe("what comes next", () => {
  test("the next subnet fills the first gap that is aligned, and other families take nothing", () => {
    const block = p("10.0.0.0/22");
    const next = (length: number, ...taken: string[]) => {
      const found = nextFreeSubnet(block, length, taken.map(p));
      return found === null ? null : formatPrefix(found);
    };
    expect(next(24)).toBe("10.0.0.0/24");
    expect(next(24, "10.0.0.0/25")).toBe("10.0.1.0/24");
    expect(next(25, "10.0.0.0/25")).toBe("10.0.0.128/25");
    expect(next(22)).toBe("10.0.0.0/22");
    expect(next(22, "10.0.3.255/32")).toBeNull();
    expect(next(21)).toBeNull();
    expect(next(32, "10.0.0.0/23")).toBe("10.0.2.0/32");
    expect(next(33)).toBeNull();
    expect(next(24, "::/0")).toBe("10.0.0.0/24");
    expect(nextFreeSubnet(p("fd00::/48"), 128, [])).toEqual(p("fd00::/128"));
  });
  test("the next address is the one after the last, then the first that is free", () => {
    const block = range("10.0.0.10", "10.0.0.13");
    const next = (...used: string[]) => nextFreeAddress(block, used.map(a));
    expect(next()).toBe(a("10.0.0.10"));
    expect(next("10.0.0.11")).toBe(a("10.0.0.12"));
    expect(next("10.0.0.12", "10.0.0.10")).toBe(a("10.0.0.13"));
    expect(next("10.0.0.13")).toBe(a("10.0.0.10"));
    expect(next("10.0.0.13", "10.0.0.10")).toBe(a("10.0.0.11"));
    expect(next("10.0.0.10", "10.0.0.11", "10.0.0.12", "10.0.0.13")).toBeNull();
    expect(next("10.0.0.14", "10.0.0.9")).toBe(a("10.0.0.10"));
    expect(nextFreeAddress(range("255.255.255.254", "255.255.255.255"), [a("255.255.255.255")])).toBe(
      a("255.255.255.254"),
    );
    // What is used beside the block says nothing of it, on either side.
    expect(
      nextFreeAddress(range("10.0.0.10", "10.0.0.12"), [a("10.0.0.2"), a("10.0.0.40"), a("10.0.0.10")]),
    ).toBe(a("10.0.0.11"));
    expect(nextFreeAddress(range("10.0.0.10", "10.0.0.12"), [a("10.0.0.11"), a("10.0.0.11")])).toBe(
      a("10.0.0.12"),
    );
  });
  test("a unique-local prefix is fd and five bytes, whatever they are", () => {
    expect(uniqueLocalPrefix(Uint8Array.of(1, 2, 3, 4, 5))).toEqual(p("fd01:203:405::/48"));
    expect(uniqueLocalPrefix(Uint8Array.of(255, 255, 255, 255, 255))).toEqual(p("fdff:ffff:ffff::/48"));
    expect(uniqueLocalPrefix(Uint8Array.of(1, 2, 3, 4))).toBeNull();
    expect(uniqueLocalPrefix(Uint8Array.of(1, 2, 3, 4, 5, 6))).toBeNull();
  });
  test("a VLAN's digits name its /64 where there is room and nobody has it", () => {
    const block = p6("fd00:24::/48");
    const six = (vid: number | null, ...taken: string[]) => {
      const found = subPrefix6(block, vid, taken.map(p));
      return found === null ? null : formatPrefix(found);
    };
    expect(six(20)).toBe("fd00:24:0:20::/64");
    expect(six(4094)).toBe("fd00:24:0:4094::/64");
    expect(six(20, "fd00:24:0:20::/64")).toBe("fd00:24::/64");
    expect(six(null)).toBe("fd00:24::/64");
    expect(six(null, "fd00:24::/64")).toBe("fd00:24:0:1::/64");
    const small = p6("fd00:24:0:10::/60");
    expect(subPrefix6(small, 20, [])).toEqual(p("fd00:24:0:10::/64"));
    expect(subPrefix6(small, 9, [])).toEqual(p("fd00:24:0:19::/64"));
    expect(subPrefix6(p6("fd00:24::/64"), 20, [])).toEqual(p("fd00:24::/64"));
    expect(subPrefix6(p6("fd00:24::/65"), 20, [])).toBeNull();
    expect(subPrefix6(p6("fd00:24::/64"), 0, [p("fd00:24::/64")])).toBeNull();
  });
});

describe("packing", () => {
  test("free prefixes are the largest that are left", () => {
    expect(texts(freePrefixes(p("10.0.0.0/24"), [p("10.0.0.64/26"), p("::/0"), p("11.0.0.0/24")]))).toEqual([
      "10.0.0.0/26",
      "10.0.0.128/25",
    ]);
    expect(freePrefixes(p("10.0.0.0/24"), [p("10.0.0.0/16")])).toEqual([]);
  });
  test("the largest first, each in the tightest place, equal ones in the order of the wishes", () => {
    const wishes = [
      { key: "small", length: 26, roomLength: 26 },
      { key: "first", length: 25, roomLength: 25 },
      { key: "roomy", length: 26, roomLength: 24 },
      { key: "second", length: 25, roomLength: 25 },
    ];
    const { placed, unplaced } = packSubnets([p("10.0.0.0/23"), p("10.0.0.0/24")], wishes, [
      p("10.0.1.0/26"),
    ]);
    expect(Object.fromEntries([...placed].map(([key, prefix]) => [key, formatPrefix(prefix)]))).toEqual({
      roomy: "10.0.0.0/26",
      first: "10.0.1.128/25",
      small: "10.0.1.64/26",
    });
    expect(unplaced).toEqual(["second"]);
    expect(wishes[0]?.key).toBe("small");
  });
  test("what is placed lies in a block, meets nothing, and is as long as was wished", () => {
    const wish = fc.record({
      length: fc.integer({ min: 24, max: 30 }),
      more: fc.integer({ min: 0, max: 3 }),
    });
    fc.assert(
      fc.property(fc.array(wish, { maxLength: 24 }), (list) => {
        const wishes = list.map(({ length, more }, i) => ({
          key: `${i}`,
          length,
          roomLength: length - more,
        }));
        const blocks = [p("10.1.0.0/24"), p("10.0.0.0/23")];
        const { placed, unplaced } = packSubnets(blocks, wishes, [p("10.0.0.0/27")]);
        expect([...placed.keys(), ...unplaced].sort()).toEqual(wishes.map(({ key }) => key).sort());
        const all = [...placed];
        for (const [key, prefix] of all) {
          expect(prefix.length).toBe(wishes[Number(key)]?.length);
          expect(blocks.some((block) => containsAddress(block, prefix.network))).toBe(true);
          const room = must(prefixOf(prefix.network, wishes[Number(key)]?.roomLength ?? 0), "its room");
          expect(containsAddress(room, a("10.0.0.0"))).toBe(false);
          for (const [other, second] of all)
            if (other !== key) expect(containsAddress(room, second.network)).toBe(false);
        }
      }),
    );
  });
});
