import { must } from "../kernel";
import { mac } from "../testing/written";
import { formatAddress, ipv4, ipv6, parseAddress, type Address } from "./address";
import { linkLocal, madeMac, selfMadeAddress } from "./interface-id";
import { isGroup, isLocallyAdministered, parseMac } from "./mac";
import {
  addressAt,
  asPrefix4,
  asPrefix6,
  byPrefix,
  containsAddress,
  containsPrefix,
  formatPrefix,
  lengthForHosts,
  masksAsSlashes,
  offsetIn,
  parseInterfaceAddress,
  parsePrefix,
  prefixLengthOf,
  prefixesOverlap,
  prefixOf,
  readPrefix,
  shortPrefix,
  type Prefix,
  type Prefix6,
} from "./prefix";
import { exclude, subnetCount, subnetsOf, summarise, supernetOf } from "./prefix-set";
import { freeRanges, inRange, parseRange, prefixesOfRange, rangesOverlap, usableRange } from "./range";
import { isLinkLocal, isSelfGiven, usesOf } from "./special";

// The borders of what an address, a prefix and a range can be: the last that is one, and the first that is not.

const p = (text: string): Prefix => must(parsePrefix(text), text);
const p6 = (text: string): Prefix6 => must(asPrefix6(p(text)), text);
const a = (text: string): Address => must(parseAddress(text), text);
const range = (first: string, last: string) => ({ first: a(first), last: a(last) });
const texts = (prefixes: Iterable<Prefix>) => [...prefixes].map(formatPrefix);

describe("numbers", () => {
  test.each([
    [0, true],
    [0xffff_ffff, true],
    [0x1_0000_0000, false],
    [-1, false],
    [1.5, false],
    [Number.NaN, false],
  ])("%d as an IPv4 address: %s", (number, isOne) => expect(ipv4(number) !== null).toBe(isOne));
  test.each([
    [0n, true],
    [2n ** 128n - 1n, true],
    [2n ** 128n, false],
    [-1n, false],
  ])("%d as an IPv6 address: %s", (number, isOne) => expect(ipv6(number) !== null).toBe(isOne));
  test.each([
    ["::", "::"],
    ["::1", "::1"],
    ["1::", "1::"],
    ["0:0:0:0:0:0:0:0", "::"],
    ["1:0:0:2:0:0:0:3", "1:0:0:2::3"],
    ["1:0:0:2:3:0:0:4", "1::2:3:0:0:4"],
    ["0:1:2:3:4:5:6:7", "0:1:2:3:4:5:6:7"],
    ["1:2:3:4:5:6:7:0", "1:2:3:4:5:6:7:0"],
    ["1:2:3:4:5:6:0:0", "1:2:3:4:5:6::"],
    ["FE80::A", "fe80::a"],
    ["::ffff:10.24.20.1", "::ffff:a18:1401"],
    ["64:ff9b::10.24.20.1", "64:ff9b::a18:1401"],
  ])("%s is written %s (RFC 5952)", (text, written) => expect(formatAddress(a(text))).toBe(written));
  test.each([
    "1:2:3:4:5:6:7::8",
    "1.2.3.4::1",
    "1:2:3:4:5:6:7:8:9",
    "::1::",
    "10.0.0.1:1::",
    "1:2.3.4.5:6::",
  ])("%s is no address", (text) => expect(parseAddress(text)).toBeNull());
  test("eight groups with a gap of none is refused, seven with a gap of one is read", () => {
    expect(parseAddress("1::2:3:4:5:6:7:8")).toBeNull();
    expect(parseAddress("1::3:4:5:6:7:8")).toBe(a("1:0:3:4:5:6:7:8"));
  });
});

describe("MAC addresses", () => {
  test.each([
    ["02:5A:10:3C:00:22", "02:5a:10:3c:00:22"],
    ["02-5a-10-3c-00-22", "02:5a:10:3c:00:22"],
    ["025a.103c.0022", "02:5a:10:3c:00:22"],
    ["025a103c0022", "02:5a:10:3c:00:22"],
    ["02:5a:10:3c:00:22", "02:5a:10:3c:00:22"],
  ])("%s is %s", (text, read) => expect(parseMac(text)).toBe(read));
  test.each([
    "02:5a:10:3c:00",
    "02:5a:10:3c:00:22:01",
    "x02:5a:10:3c:00:22",
    "02:5a-10:3c:00:22",
    "02 5a 10 3c",
  ])("%s is none", (text) => expect(parseMac(text)).toBeNull());
  test.each([
    ["00", false, false],
    ["01", true, false],
    ["02", false, true],
    ["03", true, true],
    ["08", false, false],
    ["09", true, false],
    ["0a", false, true],
    ["0b", true, true],
    ["0c", false, false],
    ["0f", true, true],
    ["33", true, true],
  ])("first octet %s: a group %s, chosen locally %s", (octet, group, local) => {
    expect(isGroup(mac(`${octet}:00:5e:00:53:01`))).toBe(group);
    expect(isLocallyAdministered(mac(`${octet}:00:5e:00:53:01`))).toBe(local);
  });
  test("one made for an id is local, no group, the same for the same id, and another for another", () => {
    const made = Array.from({ length: 400 }, (_, i) => madeMac(`host ${i}`));
    expect(new Set(made).size).toBe(made.length);
    for (const [i, prefix] of made.entries()) {
      expect(prefix).toMatch(/^02(:[0-9a-f]{2}){5}$/);
      expect(madeMac(`host ${i}`)).toBe(prefix);
    }
    expect(madeMac("")).toMatch(/^02(:[0-9a-f]{2}){5}$/);
    expect(madeMac("ab")).not.toBe(madeMac("ba"));
  });
});

describe("addresses that a device makes itself", () => {
  // RFC 4291 appendix A turns the universal bit round and puts ff:fe into the middle.
  test.each([
    ["34:56:78:9a:bc:de", "fe80::3656:78ff:fe9a:bcde"],
    ["02:00:5e:10:00:01", "fe80::5eff:fe10:1"],
    ["00:00:5e:00:53:01", "fe80::200:5eff:fe00:5301"],
    ["fe:dc:ba:98:76:54", "fe80::fcdc:baff:fe98:7654"],
  ])("%s: %s", (own, wanted) => {
    expect(formatAddress(linkLocal(mac(own)))).toBe(wanted);
    expect(isLinkLocal(linkLocal(mac(own)))).toBe(true);
  });
  test("in a /64 and nowhere else", () => {
    const own = mac("34:56:78:9a:bc:de");
    expect(selfMadeAddress(p6("fd00:24:20::/64"), own)).toBe(a("fd00:24:20:0:3656:78ff:fe9a:bcde"));
    expect(selfMadeAddress(p6("fd00:24:20::/63"), own)).toBeNull();
    expect(selfMadeAddress(p6("fd00:24:20::/65"), own)).toBeNull();
  });
  test.each([
    ["fe7f:ffff:ffff:ffff:ffff:ffff:ffff:ffff", false],
    ["fe80::", true],
    ["febf:ffff:ffff:ffff:ffff:ffff:ffff:ffff", true],
    ["fec0::", false],
    ["169.254.1.1", false],
  ])("%s is link-local for IPv6: %s", (text, is) => expect(isLinkLocal(a(text))).toBe(is));
  test.each([
    ["0.0.0.0", ["unspecified", "this-network"]],
    ["100.64.0.1", ["shared"]],
    ["172.31.255.255", ["private"]],
    ["172.32.0.0", []],
    ["fdff::1", ["unique-local"]],
    ["2001:db8::1", ["documentation"]],
  ])("%s is for %j", (text, uses) => expect(usesOf(a(text))).toEqual(uses));
});

describe("prefixes as they are written", () => {
  test.each([
    ["10.24.20.7/24", "10.24.20.0/24"],
    ["10.24.20.7/255.255.255.0", "10.24.20.0/24"],
    ["10.24.20.7/0.0.0.255", "10.24.20.0/24"],
    ["10.24.20.7/255.255.255.255", "10.24.20.7/32"],
    ["10.24.20.7/0", "0.0.0.0/0"],
    ["10.24.20.7/0.0.0.0", "0.0.0.0/0"],
    ["fd00::7/64", "fd00::/64"],
    ["fd00::7/128", "fd00::7/128"],
  ])("%s lies in %s", (text, prefix) => {
    const read = must(parseInterfaceAddress(text), text);
    expect(formatPrefix(read.prefix)).toBe(prefix);
    expect(formatAddress(read.address)).toBe(text.split("/")[0]);
  });
  test.each([
    "10.24.20.7",
    "10.24.20.7/",
    "/24",
    "10.24.20.7/24/1",
    "10.24.20.7/33",
    "10.24.20.7/024",
    "10.24.20.7/24x",
    "10.24.20.7/x24",
    "10.24.20.7/255.0.255.0",
    "10.24.20.7/ 24",
    "fd00::7/129",
    "fd00::7/255.255.255.0",
    "ten/24",
  ])("%s is refused", (text) => expect(parseInterfaceAddress(text)).toBeNull());
  test.each([
    ["24", 4, 24],
    ["/24", 4, 24],
    [" /24 ", 4, 24],
    ["0", 4, 0],
    ["32", 4, 32],
    ["33", 4, null],
    ["255.255.255.128", 4, 25],
    ["255.255.255.255", 4, 32],
    ["0.0.0.0", 4, 0],
    ["255.0.255.0", 4, null],
    ["24 ", 6, 24],
    ["128", 6, 128],
    ["129", 6, null],
    ["255.255.255.0", 6, null],
    ["", 4, null],
    ["2x", 4, null],
    ["1000", 6, null],
    ["//24", 4, null],
  ] as const)("%j as a length of family %d is %s", (text, family, length) =>
    expect(prefixLengthOf(text, family)).toBe(length),
  );
  test.each([
    ["10.24.20.0/24", "10.24.20.0/24"],
    ["10.24.20.0 255.255.255.0", "10.24.20.0/24"],
    ["10.24.20.0 mask 255.255.255.0", "10.24.20.0/24"],
    ["10.24.20.0 netmask 255.255.255.0", "10.24.20.0/24"],
    [" 10.24.20.0/24 ", "10.24.20.0/24"],
    ["fd00:24::/64", "fd00:24::/64"],
    ["10.24.20.7/24", null],
    ["10.24.20.0", null],
    ["10.24.20.0 255.0.255.0", null],
  ])("%j is read as %s", (text, wanted) => {
    const read = readPrefix(text);
    expect(read === null ? null : formatPrefix(read)).toBe(wanted);
  });
  test("masks in a line of text become lengths, and what is no mask stays", () => {
    expect(masksAsSlashes("10.1.0.0 255.255.0.0 and 10.2.0.0 netmask 255.254.0.0")).toBe(
      "10.1.0.0/255.255.0.0 and 10.2.0.0/255.254.0.0",
    );
    expect(masksAsSlashes("10.1.0.0 10.2.0.0")).toBe("10.1.0.0 10.2.0.0");
    expect(masksAsSlashes("10.1.0.0  255.255.255.0.1")).toBe("10.1.0.0  255.255.255.0.1");
  });
  test("a length that no family has makes no prefix", () => {
    for (const length of [-1, 1.5, 33, Number.NaN]) expect(prefixOf(a("10.0.0.0"), length)).toBeNull();
    expect(prefixOf(a("10.0.0.1"), 0)).toEqual(p("0.0.0.0/0"));
    expect(prefixOf(a("fd00::1"), 129)).toBeNull();
    expect(prefixOf(a("fd00::1"), 128)).toEqual(p("fd00::1/128"));
  });
  test("one of the other family is none of this", () => {
    expect([asPrefix4(p("10.0.0.0/8")), asPrefix4(p("fd00::/8")), asPrefix4(null)]).toEqual([
      p("10.0.0.0/8"),
      null,
      null,
    ]);
    expect([asPrefix6(p("fd00::/8")), asPrefix6(p("10.0.0.0/8")), asPrefix6(null)]).toEqual([
      p("fd00::/8"),
      null,
      null,
    ]);
    expect(containsAddress(p("0.0.0.0/0"), a("::1"))).toBe(false);
  });
  test("the n-th address of a prefix, as long as it lies in it", () => {
    expect(addressAt(p("10.24.20.0/30"), 0)).toBe(a("10.24.20.0"));
    expect(addressAt(p("10.24.20.0/30"), 3)).toBe(a("10.24.20.3"));
    expect(addressAt(p("10.24.20.0/30"), 4)).toBeNull();
    expect(addressAt(p("10.24.20.0/30"), -1)).toBeNull();
    expect(addressAt(p("255.255.255.252/30"), 4)).toBeNull();
    expect(addressAt(p("fd00::/126"), 3)).toBe(a("fd00::3"));
  });
  test("the longest prefix with room for so many hosts and a gateway", () => {
    expect([1, 2, 5, 6, 13, 14, 253, 254].map(lengthForHosts)).toEqual([30, 29, 29, 28, 28, 27, 24, 23]);
  });
});

describe("what a prefix is to others, and in words", () => {
  test("a single address is written without its length", () => {
    expect(
      ["10.24.20.9/32", "10.24.20.8/31", "fd00::1/128", "fd00::/127", "0.0.0.0/0"].map((t) =>
        shortPrefix(p(t)),
      ),
    ).toEqual(["10.24.20.9", "10.24.20.8/31", "fd00::1", "fd00::/127", "0.0.0.0/0"]);
  });
  test("how far an address lies behind the first", () => {
    expect(offsetIn(p("10.24.20.0/24"), a("10.24.20.0"))).toBe(0);
    expect(offsetIn(p("10.24.20.0/24"), a("10.24.20.255"))).toBe(255);
    expect(offsetIn(p("fd00:24::/64"), a("fd00:24::1:0"))).toBe(65_536);
  });
  test("in order: by family, then by address, the wider first", () => {
    const wanted = [
      "10.0.0.0/8",
      "10.0.0.0/9",
      "10.0.0.0/24",
      "10.128.0.0/9",
      "11.0.0.0/8",
      "::/0",
      "fd00::/8",
    ];
    for (const turned of [
      wanted,
      [...wanted].reverse(),
      [3, 0, 6, 1, 5, 2, 4].map((i) => must(wanted[i], "one")),
    ])
      expect(texts(turned.map(p).sort(byPrefix))).toEqual(wanted);
  });
  test("one that is wider lies in none that begins with it", () => {
    expect(containsPrefix(p("10.0.0.0/9"), p("10.0.0.0/8"))).toBe(false);
    expect(containsPrefix(p("10.0.0.0/8"), p("10.0.0.0/8"))).toBe(true);
    expect(containsPrefix(p("0.0.0.0/0"), p("::/0"))).toBe(false);
    expect(prefixesOverlap(p("10.0.0.0/9"), p("10.0.0.0/8"))).toBe(true);
    expect(prefixesOverlap(p("10.0.0.0/9"), p("10.128.0.0/9"))).toBe(false);
  });
  test.each([
    "10.24.20.1",
    "10.24.20.1/24/8",
    "10.24.20.1/",
    "/24",
    "10.24.20/24",
    "10.24.20.1/33",
    "fd00::1/129",
  ])("%s is no address with a length", (text) => expect(parseInterfaceAddress(text)).toBeNull());
  test("a length is a number or a mask, with one slash before it at most", () => {
    expect(
      ["/25", "25", " /25 ", "255.255.255.128", "/255.255.255.128"].map((t) => prefixLengthOf(t, 4)),
    ).toEqual([25, 25, 25, 25, 25]);
    expect(["2/5", "//25", "25/", "33", "", "/"].map((t) => prefixLengthOf(t, 4))).toEqual(
      Array(6).fill(null),
    );
    expect(prefixLengthOf("255.255.255.128", 6)).toBeNull();
    expect(prefixLengthOf("128", 6)).toBe(128);
  });
});

describe("addresses that somebody gave itself", () => {
  test.each([
    ["169.254.0.0", true],
    ["169.254.255.255", true],
    ["169.253.255.255", false],
    ["169.255.0.0", false],
    ["10.24.20.1", false],
    ["fe80::1", false],
  ])("%s: %s (RFC 3927)", (text, isOne) => expect(isSelfGiven(a(text))).toBe(isOne));
  test("the number of one is no IPv6 address that somebody gave itself", () => {
    expect(isSelfGiven(a("::a9fe:1"))).toBe(false);
  });
});

describe("sets of prefixes", () => {
  test("as few as hold the same", () => {
    expect(texts(summarise([p("10.0.1.0/24"), p("10.0.0.0/24"), p("10.0.0.0/25")]))).toEqual(["10.0.0.0/23"]);
    expect(texts(summarise([p("10.0.0.0/24"), p("10.0.2.0/24")]))).toEqual(["10.0.0.0/24", "10.0.2.0/24"]);
    expect(texts(summarise([p("10.0.0.0/8"), p("10.0.0.0/24")]))).toEqual(["10.0.0.0/8"]);
    expect(texts(summarise([p("::/127"), p("255.255.255.255/32"), p("0.0.0.0/32")]))).toEqual([
      "0.0.0.0/32",
      "255.255.255.255/32",
      "::/127",
    ]);
    expect(summarise([])).toEqual([]);
  });
  test("what is left without a hole", () => {
    expect(texts(exclude(p("10.0.0.0/24"), p("10.0.0.64/26")))).toEqual(["10.0.0.0/26", "10.0.0.128/25"]);
    expect(texts(exclude(p("10.0.0.0/24"), p("10.0.1.0/24")))).toEqual(["10.0.0.0/24"]);
    expect(exclude(p("10.0.0.0/24"), p("10.0.0.0/23"))).toEqual([]);
    expect(exclude(p("10.0.0.0/24"), p("10.0.0.0/24"))).toEqual([]);
  });
  test("subnets are counted and listed, and a length that does not fit has none", () => {
    expect(subnetCount(p("10.0.0.0/24"), 26)).toBe(4n);
    expect(subnetCount(p("10.0.0.0/24"), 24)).toBe(1n);
    expect(subnetCount(p("10.0.0.0/24"), 23)).toBe(0n);
    expect(subnetCount(p("10.0.0.0/24"), 33)).toBe(0n);
    expect(subnetCount(p("fd00::/48"), 64)).toBe(65_536n);
    expect(texts(subnetsOf(p("10.0.0.0/24"), 26))).toEqual([
      "10.0.0.0/26",
      "10.0.0.64/26",
      "10.0.0.128/26",
      "10.0.0.192/26",
    ]);
    expect(texts(subnetsOf(p("10.0.0.0/24"), 23))).toEqual([]);
    expect(supernetOf(p("10.0.1.0/24"), 23)).toEqual(p("10.0.0.0/23"));
    expect(supernetOf(p("10.0.1.0/24"), 25)).toBeNull();
    expect(supernetOf(p("10.0.1.0/24"), 24)).toEqual(p("10.0.1.0/24"));
  });
});

describe("ranges", () => {
  test.each([
    ["10.0.0.1-10.0.0.9", "10.0.0.1", "10.0.0.9"],
    ["10.0.0.1 – 10.0.0.9", "10.0.0.1", "10.0.0.9"],
    [" 10.0.0.1 to 10.0.0.1 ", "10.0.0.1", "10.0.0.1"],
    ["fd00::1 - fd00::f", "fd00::1", "fd00::f"],
  ])("%j", (text, first, last) => expect(parseRange(text)).toEqual(range(first, last)));
  test.each([
    "10.0.0.9-10.0.0.1",
    "10.0.0.1",
    "10.0.0.1-",
    "-10.0.0.9",
    "10.0.0.1-10.0.0.2-10.0.0.3",
    "10.0.0.1-fd00::1",
    "fd00::1-255.255.255.255",
    "a-b",
  ])("%j is none", (text) => expect(parseRange(text)).toBeNull());
  test("ends belong to a range, and another family never does", () => {
    const own = range("10.0.0.10", "10.0.0.20");
    expect(["10.0.0.9", "10.0.0.10", "10.0.0.20", "10.0.0.21"].map((text) => inRange(own, a(text)))).toEqual([
      false,
      true,
      true,
      false,
    ]);
    expect(inRange(range("::", "ffff::"), a("10.0.0.1"))).toBe(false);
    expect(rangesOverlap(own, range("10.0.0.20", "10.0.0.30"))).toBe(true);
    expect(rangesOverlap(own, range("10.0.0.1", "10.0.0.10"))).toBe(true);
    expect(rangesOverlap(own, range("10.0.0.21", "10.0.0.30"))).toBe(false);
    expect(rangesOverlap(own, range("10.0.0.1", "10.0.0.9"))).toBe(false);
    expect(rangesOverlap(own, range("::", "ffff::"))).toBe(false);
  });
  test("the last address of a family ends a range as it should", () => {
    expect(texts(prefixesOfRange(range("255.255.255.254", "255.255.255.255")))).toEqual([
      "255.255.255.254/31",
    ]);
    expect(texts(prefixesOfRange(range("0.0.0.0", "255.255.255.255")))).toEqual(["0.0.0.0/0"]);
    expect(texts(prefixesOfRange(range("10.0.0.1", "10.0.0.6")))).toEqual([
      "10.0.0.1/32",
      "10.0.0.2/31",
      "10.0.0.4/31",
      "10.0.0.6/32",
    ]);
  });
  test("what is free is all that nobody has, in order, however the taken ranges lie", () => {
    const whole = range("10.0.0.0", "10.0.0.9");
    expect(freeRanges(whole, [])).toEqual([whole]);
    expect(freeRanges(whole, [range("10.0.0.4", "10.0.0.5"), range("10.0.0.0", "10.0.0.1")])).toEqual([
      range("10.0.0.2", "10.0.0.3"),
      range("10.0.0.6", "10.0.0.9"),
    ]);
    expect(freeRanges(whole, [range("10.0.0.2", "10.0.0.8"), range("10.0.0.3", "10.0.0.4")])).toEqual([
      range("10.0.0.0", "10.0.0.1"),
      range("10.0.0.9", "10.0.0.9"),
    ]);
    expect(freeRanges(whole, [range("9.0.0.0", "11.0.0.0")])).toEqual([]);
    expect(freeRanges(whole, [range("10.0.0.10", "10.0.0.20")])).toEqual([whole]);
  });
  test.each([
    ["10.0.0.0/24", "10.0.0.1", "10.0.0.254"],
    ["10.0.0.0/30", "10.0.0.1", "10.0.0.2"],
    ["10.0.0.0/31", "10.0.0.0", "10.0.0.1"],
    ["10.0.0.0/32", "10.0.0.0", "10.0.0.0"],
    ["fd00::/126", "fd00::1", "fd00::3"],
    ["fd00::/127", "fd00::", "fd00::1"],
    ["fd00::/128", "fd00::", "fd00::"],
  ])("hosts of %s may have %s to %s", (prefix, first, last) =>
    expect(usableRange(p(prefix))).toEqual(range(first, last)),
  );
});
