import { fennelStreet } from "../../../demo/fennel-street";
import { formatAddress, type Ipv6 } from "../address";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { withIpv6 } from "../testing/with-ipv6";
import { judge } from "./judge";
import { testSheet } from "./sheet";
import type { Expected } from "./tests";
import { expectedText } from "./words";

const index = PlanIndex.of(fennelStreet());
const { tests } = testSheet(index);
const testAt = (at: RegExp): Expected =>
  must(
    tests.find((siteTest) => at.test(siteTest.at)),
    String(at),
  ).expected;
const PHONES = testAt(/^Phone Theatre desk$/);
const PRINTER = testAt(/^Office printer$/);
const DARK = testAt(/^Upper switch port 21$/);

/** What the text of a laptop says of its network, as three ways of printing it have it. */
const PRINTED = [
  ["one address", "10.24.30.25"],
  [
    "lines with dots",
    "Wired\n   IPv4 Address. . . . . : 10.24.30.25\n   Subnet Mask . . . . : 255.255.255.0\n" +
      "   Lease Obtained. . . : Sunday\n   Default Gateway . . : 10.24.30.1\n" +
      "   DHCP Server . . . . : 10.24.30.1\n   DNS Servers . . . . : 10.24.30.1",
  ],
  ["a line with a length", "inet 10.24.30.25/24 brd 10.24.30.255\ndefault via 10.24.30.1 dev e0"],
  ["any order", "router: 10.24.30.1\nmask: 255.255.255.0\naddress: 10.24.30.25"],
] as const;

test.each(PRINTED)("%s in the range is right", (_, text) => {
  expect(judge(index, PHONES, text)).toEqual({ isRight: true, words: "10.24.30.25 is right." });
});

test.each([
  [PHONES, "10.24.50.9", /^10\.24\.50\.9 is an address of Cards; it has to be one of Phones: 10\.24\.30\./],
  [PHONES, "10.24.30.60", /an address of Phones, but outside what its server gives/],
  [PHONES, "169.254.7.3", /gives itself: no DHCP server answered/],
  [PHONES, "192.168.1.20", /in no subnet of this site: another DHCP server answers/],
  [PHONES, "none", /^It got no address\.$/],
  [
    PHONES,
    "10.24.30.25\ngateway 10.24.30.254",
    /^The gateway is 10\.24\.30\.254 and has to be 10\.24\.30\.1\.$/,
  ],
  [PHONES, "10.24.30.25\nDNS: 10.24.9.9", /^10\.24\.9\.9 is named as name server; it has to be 10\./],
  [PRINTER, "10.24.20.99", /it has to be 10\.24\.20\.\d+\.$/],
  [DARK, "link", /^There is a link, and the port has to be off\.$/],
  [DARK, "10.24.20.40", /an address of Staff; the port has to be off/],
  [{ is: "no lease", why: "" } as const, "10.24.20.40", /it has to get none/],
  [{ is: "answer" } as const, "nothing", /^Nothing comes back, and it has to answer\.$/],
  [
    { is: "silence", why: "The wall is closed." } as const,
    "yes",
    /has to stay silent\. The wall is closed\.$/,
  ],
])("%j, read %j, is wrong, and says how", (expected, text, words) => {
  const judged = must(judge(index, expected, text), "it is judged");
  expect([judged.isRight, judged.words]).toEqual([false, expect.stringMatching(words)]);
});

test.each([
  [DARK, "none"],
  [{ is: "no lease", why: "" } as const, "169.254.1.1"],
  [{ is: "answer" } as const, "it opens".replace("it ", "")],
  [{ is: "silence", why: "" } as const, "timeout"],
])("%j, read %j, is right", (expected, text) => {
  expect(judge(index, expected, text)?.isRight).toBe(true);
});

test.each([
  [PHONES, "no idea"],
  [DARK, "hm"],
  [{ is: "answer" } as const, "perhaps"],
  [PHONES, "255.255.255.0"],
])("%j, read %j, is not judged", (expected, text) => {
  expect(judge(index, expected, text)).toBeNull();
});

test("a figure of an instrument is judged by its bounds, whatever stands around it", () => {
  const level: Expected = { is: "measured", what: "Level", unit: "dBm", least: -67, most: null };
  const length: Expected = { is: "measured", what: "Length", unit: "m", least: null, most: 100 };
  expect(judge(index, level, "-60 dBm")).toEqual({ isRight: true, words: "Level -60 dBm is right." });
  expect(judge(index, level, "Signal: −71,5 dBm")).toEqual({
    isRight: false,
    words: "Level -71.5 dBm is less than -67 dBm.",
  });
  expect(judge(index, level, "72")?.isRight).toBe(false);
  expect(judge(index, length, "PASS 34.2 m")).toEqual({ isRight: true, words: "Length 34.2 m is right." });
  expect(judge(index, length, "112")).toEqual({ isRight: false, words: "Length 112 m is more than 100 m." });
  expect(judge(index, length, "FAIL: pair 3-6 open at 12 m")?.isRight).toBe(false);
  expect(judge(index, length, "fine")).toBeNull();
  expect([expectedText(index, level), expectedText(index, length)]).toEqual([
    "Level at least -67 dBm",
    "Length at most 100 m",
  ]);
});

const withSix = withIpv6(fennelStreet());
const SIX = must(
  testSheet(withSix).tests.find(({ question }) => question?.family === 6),
  "a reading of IPv6",
);

test("an IPv6 address has to be of the segment's own subnet, however a laptop prints it", () => {
  const { expected } = SIX;
  if (expected.is !== "lease") throw new Error("a lease");
  const [range] = expected.ranges;
  const first = must(range?.first, "its subnet");
  const own = formatAddress((BigInt(first) + 0x1234n) as Ipv6);
  const says = (text: string) => judge(withSix, expected, text)?.words;
  const name = must(withSix.plan.segment.get(expected.segment ?? ""), "its segment").name;
  const wanted = `it has to be one of ${name}: ${formatAddress(first)}/64.`;
  expect(expectedText(withSix, expected)).toBe(`${formatAddress(first)}/64, ${name}`);
  for (const text of [
    own,
    `IPv6 Address. . . : ${own}(Preferred)\n   Link-local IPv6 Address . . : fe80::1c2:3%12(Preferred)\n` +
      "   IPv4 Address. . : 10.24.20.50\n   Default Gateway . . : fe80::1%12\n        10.24.20.1",
    `inet6 ${own}/64 scope global dynamic\ninet6 fe80::9/64 scope link\nlink/ether 02:00:00:00:00:01`,
  ])
    expect(says(text)).toBe(`${own} is right.`);
  expect(says("fe80::9%en0")).toBe(
    `fe80::9 is one that a device gives itself: no router advertises; ${wanted}`,
  );
  expect(says("2001:db8:ffff:1::7")).toBe(
    `2001:db8:ffff:1::7 is in no subnet of this site: another router advertises; ${wanted}`,
  );
  expect(says(`${own}\n2001:db8:ffff:1::7`)).toBe(
    `2001:db8:ffff:1::7 is in no subnet of this site: another router advertises, beside ${own}.`,
  );
  expect(says("IPv4 Address: 10.24.20.50")).toBe(`It shows no IPv6 address; ${wanted}`);
  expect(says("none")).toBe("It got no address.");
  expect(says("02:00:00:00:00:01")).toBeUndefined();
});
