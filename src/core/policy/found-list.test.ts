import { parseIpv4, parseIpv6 } from "../address";
import { must } from "../kernel";
import { BLANK_RULE, PlanIndex, type Device, type Rule, type RuleSide } from "../plan";
import { aDevice, aDomain, aHost, aSegment, aZone, planWith, testId } from "../testing/build-plan";
import { net, net6 } from "../testing/written";
import { FOUND_LISTS } from "./found-list";

// The list that stands on a device, as its filter reads it.

const zone = aZone({ name: "Office" });
const desks = aSegment({
  name: "Desks",
  zone: zone.id,
  prefixes4: [net("10.60.1.0/24")],
  prefixes6: [net6("fd00:60:1::/64")],
});
const server = aHost({
  name: "Server",
  segment: desks.id,
  manner: "typed",
  ipv4: must(parseIpv4("10.60.1.5"), "an address"),
  ipv6: must(parseIpv6("fd00:60:1::5"), "an address"),
});
const bare = aHost({ name: "Bare", segment: desks.id });
const ROUTER = aDevice({ name: "Router", kind: "gateway" });

const rule = (place: number, fields: Partial<Rule> = {}): Rule => ({
  ...BLANK_RULE,
  id: testId("rule", `rule ${place}`),
  device: ROUTER.id,
  place,
  ...fields,
});
const listsOf = (rules: readonly Rule[], devices: readonly Device[] = [ROUTER]) =>
  PlanIndex.of(
    planWith({
      domain: [aDomain()],
      zone: [zone],
      segment: [desks],
      host: [server, bare],
      device: devices,
      rule: rules,
    }),
  ).derived(FOUND_LISTS);
const rulesOf = (...rules: readonly Rule[]) => must(listsOf(rules).get(ROUTER.id), "the router's list").rules;

test.each<[string, RuleSide, object]>([
  ["a zone by its name", { at: "zone", zone: zone.id }, { network: zone.id, prefixes: null }],
  [
    "a segment by its prefixes, in its zone",
    { at: "segment", segment: desks.id },
    { network: zone.id, prefixes: [net("10.60.1.0/24"), net6("fd00:60:1::/64")] },
  ],
  [
    "a host by its addresses, wherever it asks from",
    { at: "host", host: server.id },
    { network: "any", prefixes: [net("10.60.1.5/32"), net6("fd00:60:1::5/128")] },
  ],
  ["a host without an address as nobody", { at: "host", host: bare.id }, { network: "any", prefixes: [] }],
  [
    "a prefix",
    { at: "prefix", prefix: net("10.60.1.0/25") },
    { network: "any", prefixes: [net("10.60.1.0/25")] },
  ],
  ["the internet", { at: "internet" }, { network: "internet", prefixes: null }],
  ["the device itself", { at: "gateway" }, { network: "router", prefixes: null }],
])("a rule's end is read as %s", (_, side, expected) => {
  const [to, from] = rulesOf(rule(1, { to: [side] }), rule(2, { from: [side] }));
  expect(to).toMatchObject({ from: [{ network: "any", prefixes: null }], to: [expected] });
  expect(from).toMatchObject({ from: [expected], to: [{ network: "any", prefixes: null }] });
});

test("services without ports are all of their protocol, and none named is everything", () => {
  const [every, some] = rulesOf(
    rule(1),
    rule(2, {
      services: [
        { name: "ping", protocol: "icmp", ports: [] },
        { name: "web", protocol: "tcp", ports: [[80, 80]] },
      ],
    }),
  );
  expect(every?.services).toEqual([{ protocol: "any", ports: null }]);
  expect(some?.services).toEqual([
    { protocol: "icmp", ports: null },
    { protocol: "tcp", ports: [[80, 80]] },
  ]);
});

test("rules stand in their places, with what they do; those that are off are not read", () => {
  const found = rulesOf(
    rule(30, { action: "reject" }),
    rule(10, { action: "drop" }),
    rule(20, { enabled: false }),
  );
  expect(found.map(({ rule: { place }, action }) => [place, action])).toEqual([
    [10, "drop"],
    [30, "reject"],
  ]);
});

test("a device has a list where it has rules, or is said to have one of its own; with what ends it", () => {
  const filter = { ...ROUTER.filter, forwardDefault: "accept", inputDefault: "reject" } as const;
  const alone = { ...ROUTER, filter: { ...filter, list: "found", established: false } } as const;
  const planned = { ...ROUTER, filter: { ...filter, list: "planned" } } as const;
  expect([...listsOf([], [alone])]).toEqual([
    [ROUTER.id, { rules: [], established: false, forwardDefault: "accept", inputDefault: "reject" }],
  ]);
  expect(listsOf([], [planned]).size).toBe(0);
  expect([...listsOf([rule(1)], [planned]).keys()]).toEqual([ROUTER.id]);
});
