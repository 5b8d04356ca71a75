import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { PlanIndex, applyChanges, PlanEdits } from "../plan";
import { find } from "./find";
import { freePorts, isDecidedElsewhere, ownAddress } from "./port-sheet";
import { keptClear } from "./segment-sheet";
import { placesOf } from "./tables";
import { shortIn } from "./short-address";
import { formatAddress, parseIpv4, parsePrefix, ipv4, prefixOf, type Prefix4 } from "../address";
import { addressInSegment } from "../planners/segments/segment-cell";
import { aSegment } from "../testing/build-plan";
import fc from "fast-check";

const index = PlanIndex.of(fennelStreet());
const device = (name: string) =>
  must(
    [...index.plan.device.values()].find((d) => d.name === name),
    name,
  );

test("a name, part of one, words, a MAC, a VLAN number and an address each find what they name", () => {
  const names = (text: string, limit = 10) => find(index, text, limit).map((hit) => hit.name);
  expect(names("guests")[0]).toBe("Guests");
  expect(names("camera kennels")).toEqual(["Camera Kennels", "Kennels"]);
  expect(names("provider")).toEqual(["Provider's box"]);
  expect(names("upper switch 2")).toContain("Upper switch port 2");
  expect(names("02:5a:10:49:00:41")).toEqual(["Viewing station, Theatre"]);
  expect(names("vlan 40")).toEqual(["Imaging"]);
  expect(find(index, "10.24.40.34", 5)).toMatchObject([{ kind: "host", name: "Viewing station, Theatre" }]);
  expect(find(index, "10.24.40.1", 5)).toMatchObject([{ kind: "interface", name: "Gateway (Imaging)" }]);
  expect(names("02:5a:10:0a:02:01")).toEqual(["Upper switch"]);
  expect(names("fibre line")).toEqual(["Fibre line", "fibre-line-box"]);
  expect(find(PlanIndex.of(bramblewick()), "203.0.113.89", 5)).toEqual([
    { kind: "line", id: expect.any(String), name: "Fibre line", detail: "next hop 203.0.113.89" },
  ]);
  expect(names("no mail past")).toEqual(["Rule 9 of Gateway"]);
  const home = PlanIndex.of(lockkeepersHouse());
  expect(find(home, "kiln maker", 5)).toMatchObject([
    { kind: "forward", name: "Kiln, for its maker", detail: "tcp 8443, kiln-controller" },
    { kind: "wish", name: "Kiln, for its maker", detail: "from outside: https, kiln-controller" },
  ]);
  expect(names("10.24.40.99")).toEqual([]);
  expect(names("no such thing anywhere")).toEqual([]);
  expect(names("   ")).toEqual([]);
  expect(names("p", 7)).toHaveLength(7);
});

test("names that begin with what was typed come first", () => {
  const names = find(index, "consult", 40).map((hit) => hit.name);
  const firstOther = names.findIndex((name) => !name.toLowerCase().startsWith("consult"));
  expect(firstOther).toBeGreaterThan(0);
  expect(names.slice(firstOther).some((name) => name.toLowerCase().startsWith("consult"))).toBe(false);
});

test("a short address reads back as itself, whatever the subnet", () => {
  const anySubnet = fc
    .tuple(fc.integer({ min: 0, max: 0xffffffff }), fc.integer({ min: 8, max: 30 }))
    .map(([a, length]) => {
      const prefix = prefixOf(must(ipv4(a), "an address"), length);
      return must(prefix?.family === 4 ? (prefix satisfies Prefix4) : null, "a subnet");
    });
  fc.assert(
    fc.property(anySubnet, fc.integer({ min: 0, max: 0xffffffff }), fc.boolean(), (prefix, n, inside) => {
      const segment = aSegment({ name: "S", prefixes4: [prefix] });
      const address = must(ipv4(inside ? prefix.network + (n % 2 ** (32 - prefix.length)) : n), "an address");
      const short = shortIn(segment, address);
      expect([short, addressInSegment(segment, short)]).toEqual([short, address]);
      expect(short.length).toBeLessThanOrEqual(formatAddress(address).length);
    }),
    { numRuns: 500, seed: 71 },
  );
});

test("a device's own address is the one it is managed at; free ports are those with nothing in them", () => {
  expect(ownAddress(index, device("Upper switch").id)).toBe(parseIpv4("10.24.10.2"));
  expect(ownAddress(index, device("Gateway").id)).toBe(parseIpv4("10.24.10.1"));
  expect(freePorts(index, device("Upper switch").id).map((port) => port.label)).toEqual([
    "21",
    "22",
    "23",
    "26",
  ]);
  expect(
    index
      .portsOf(device("Gateway").id)
      .filter((port) => isDecidedElsewhere(index, port))
      .map((port) => port.label),
  ).toEqual(["Line 1"]);
  expect(placesOf(index)).toEqual(
    expect.arrayContaining(["Cabinet A", "Cabinet B", "Consult 1", "Consult 2"]),
  );
});

test("a range to keep clear names the segment that meets it", () => {
  expect(keptClear(index).map((range) => range.metBy)).toEqual([null, null, null, null]);
  const edits = new PlanEdits(index.plan);
  const staff = must(
    [...index.plan.segment.values()].find((s) => s.name === "Staff"),
    "Staff",
  );
  const prefix = parsePrefix("172.28.5.0/24");
  edits.patch("segment", staff.id, { prefixes4: [must(prefix?.family === 4 ? prefix : null, "a subnet")] });
  const moved = applyChanges(index.plan, edits.changes());
  expect(
    keptClear(PlanIndex.of(must(moved.ok ? moved.value : null, "applies"))).map((range) => range.metBy?.name),
  ).toEqual([undefined, undefined, "Staff", undefined]);
});
