import { z } from "zod";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { asPrefix6, formatAddress, parseIpv6, parsePrefix } from "../../address";
import { must } from "../../kernel";
import { PlanIndex, SCHEMAS, type Device, type Plan } from "../../plan";
import { adoptPlanned, replaceRules, type RulesRead } from "../../planners";
import { compareLists } from "../../rules";
import { dice } from "../../testing/plants";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { filteringDevices, STANDING_LISTS, STANDING_PROOFS } from "../../walls";
import { accessListText, readRuleData, ruleListsText } from ".";

const indexOf = (plan: Plan) => PlanIndex.of(plan);
const gatewayOf = (plan: Plan): Device => must(filteringDevices(indexOf(plan))[0], "a gateway");
const textOf = (plan: Plan): string => {
  const written = accessListText(indexOf(plan));
  return must("text" in written ? written.text : null, "it can be written");
};
const readFrom = (plan: Plan, text: string): RulesRead => {
  const read = readRuleData(indexOf(plan), gatewayOf(plan), text);
  return must(typeof read === "string" ? null : read, String(read));
};
const standing = (plan: Plan, rules: RulesRead["rules"]): Plan =>
  donePlan(afterEdit(plan, (context) => replaceRules(context, { device: gatewayOf(plan).id, rules })));
const bare = (plan: Plan): Plan => standing(plan, []);

/** The house with IPv6 at home and for the cameras. */
const withIpv6 = (): Plan =>
  donePlan(
    afterEdit(lockkeepersHouse(), ({ edits }) => {
      for (const [at, name] of ["Household", "Gadgets"].entries()) {
        const segment = must(
          edits.all("segment").find((segment) => segment.name === name),
          name,
        );
        const prefix = must(asPrefix6(parsePrefix(`fd00:19:${at}::/64`)), "a prefix");
        edits.patch("segment", segment.id, { prefixes6: [prefix] });
        edits.patch("interface", segment.gatewayInterface ?? "", {
          addresses6: [must(parseIpv6(`fd00:19:${at}::1`), "an address")],
        });
      }
      return null;
    }),
  );

const SITES = {
  house: lockkeepersHouse,
  practice: fennelStreet,
  works: bramblewick,
  "house with IPv6": withIpv6,
};

test.each(Object.entries(SITES))(
  "%s: the needed list, written as access lists and read again, does what is intended for every packet",
  (_, make) => {
    const plan = bare(make());
    const { rules, faults, notes } = readFrom(plan, textOf(plan));
    expect([...faults, ...notes]).toEqual([]);
    const after = indexOf(standing(plan, rules));
    const proof = must([...after.derived(STANDING_PROOFS).values()][0], "a proof");
    expect(proof.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
  },
);

test("a list on a device, with all its slips, comes back as one that does the same to every packet", () => {
  const plan = fennelStreet();
  const before = must([...indexOf(plan).derived(STANDING_LISTS).values()][0], "its list");
  const { rules, faults } = readFrom(plan, textOf(plan));
  expect(faults).toEqual([]);
  const after = must([...indexOf(standing(plan, rules)).derived(STANDING_LISTS).values()][0], "it");
  expect(compareLists(before.universe, before.list, after.list).fate.packets).toBe(0n);
  expect(rules.filter(({ log }) => log).length > 0).toBe(before.rules.some(({ log }) => log));
});

test("in the words of the table, too: JSON out and in again says the same as the list", () => {
  const plan = donePlan(
    afterEdit(fennelStreet(), (context) => adoptPlanned(context, gatewayOf(fennelStreet()).id)),
  );
  const { rules, faults } = readFrom(plan, ruleListsText(indexOf(plan)));
  expect(faults).toEqual([]);
  // Services without a name of their own are called by their numbers.
  const said = (all: RulesRead["rules"]) =>
    all.map(({ from, to, services, action }) => ({
      from,
      to,
      services: services.map(({ protocol, ports }) => `${protocol} ${JSON.stringify(ports)}`).sort(),
      action,
    }));
  expect(said(rules)).toEqual(said(indexOf(plan).rulesOf(gatewayOf(plan).id)));
  const rule =
    '[{"from":"Staff","to":["Servers","Internet"],"services":"https","action":"accept","note":"pages"}]';
  expect(readFrom(plan, rule).rules).toEqual([expect.objectContaining({ action: "accept", note: "pages" })]);
});

const entry = (matches: unknown, rest: object = {}) => ({
  name: "1",
  matches,
  actions: { forwarding: "accept" },
  ...rest,
});
const lists = (ace: unknown[], type: string | undefined = "ipv4-acl-type"): string =>
  JSON.stringify({
    "ietf-access-control-list:acls": {
      acl: [{ name: "x", ...(type === undefined ? {} : { type }), aces: { ace } }],
    },
  });

test.each([
  [
    "an unknown match",
    lists([entry({ ipv4: { ttl: 3 } })]),
    /entry "1": matches\.ipv4\.ttl is something that a rule here can't say/,
  ],
  [
    "a source port",
    lists([entry({ tcp: { "source-port": { port: 1 } } })]),
    /matches\.tcp\.source-port is something/,
  ],
  ["an action that is none", lists([entry({}, { actions: { forwarding: "allow" } })]), /actions\.forwarding/],
  [
    "one type of ICMP",
    lists([entry({ ipv4: { protocol: 1 }, icmp: { type: 8 } })]),
    /all of ICMP or nothing/,
  ],
  ["a protocol without a name", lists([entry({ ipv4: { protocol: 47 } })]), /can't name IP protocol 47/],
  [
    "ports of another protocol",
    lists([entry({ ipv4: { protocol: 17 }, tcp: { "destination-port": { port: 1 } } })]),
    /ports of TCP and for IP protocol 17/,
  ],
  [
    "ports that run backwards",
    lists([entry({ tcp: { "destination-port": { "lower-port": 9, "upper-port": 2 } } })]),
    /from the higher to the lower/,
  ],
  [
    "a subnet that is none",
    lists([entry({ ipv4: { "source-ipv4-network": "10.0.0.1/8" } })]),
    /is no subnet/,
  ],
  ["the other family", lists([entry({ ipv6: {} })]), /matches IPv6 in a list for IPv4/],
  ["no family at all", lists([entry({})], ""), /whether it is for IPv4 or IPv6/],
  [
    "one of the device's own addresses",
    lists([entry({ ipv4: { "destination-ipv4-network": "10.24.20.1/32" } })]),
    /one of the device's own addresses/,
  ],
])("%s in an entry is said with its place, and is not taken over", (_, text, why) => {
  const { rules, faults } = readFrom(fennelStreet(), text);
  expect(rules).toEqual([]);
  expect(faults).toEqual([expect.stringMatching(why)]);
});

test.each([
  ["{", /begins like JSON and is none/],
  ['{"rules":[{"from":"Staff","colour":"red"}]}', /rules\.0\.colour is not known here/],
  ['{"ietf-access-control-list:acls":{"acl":[],"speed":1}}', /acls\.speed is not known here/],
  ['{"ietf-access-control-list:acls":{"acl":[]}}', /no entry in these/],
  ['{"lists":[{"device":"Another","rules":[]}]}', /None of these lists is one of Gateway/],
])("%s is refused whole", (text, why) => {
  expect(readRuleData(indexOf(fennelStreet()), gatewayOf(fennelStreet()), text)).toMatch(why);
});

test("ports in all four ways of writing them; neighbours that differ in one thing are one rule", () => {
  const to = (ports: unknown, target = "10.24.30.0/24") =>
    entry({
      ipv4: { protocol: 6, "source-ipv4-network": "10.24.20.0/24", "destination-ipv4-network": target },
      tcp: { "destination-port": ports },
    });
  const text = lists([
    to({ operator: "eq", port: 443 }),
    to({ "lower-port": 8000, "upper-port": 8010 }),
    to({ operator: "lte", port: 2 }),
    to({ operator: "gte", port: 65_000 }),
    to({ operator: "neq", port: 5 }, "10.24.40.0/24"),
  ]);
  expect(
    readFrom(fennelStreet(), text).rules.map(({ services }) =>
      services.flatMap(({ ports }) => ports).sort(([a], [b]) => a - b),
    ),
  ).toEqual([
    [
      [0, 2],
      [443, 443],
      [8000, 8010],
      [65_000, 65_535],
    ],
    [
      [0, 4],
      [6, 65_535],
    ],
  ]);
});

const WRONG: readonly unknown[] = [
  null,
  "",
  "x",
  -1,
  70_000,
  1.5,
  true,
  [],
  {},
  [[]],
  "10.0.0.0/33",
  "::/0",
  { port: "443" },
];
type Json = Record<string, unknown>;

/** Some place in a value, as the object or list that holds it and the key. */
function someplace(roll: (sides: number) => number, value: unknown): readonly [Json, string] | null {
  if (typeof value !== "object" || value === null) return null;
  const keys = Object.keys(value);
  const key = keys[roll(Math.max(1, keys.length))];
  if (key === undefined) return null;
  const deeper = roll(5) === 0 ? null : someplace(roll, (value as Json)[key]);
  return deeper ?? [value as Json, key];
}

test("120 lists with something wrong in them: a sentence or rules that can stand, no accident", () => {
  const plan = fennelStreet();
  const whole = textOf(plan);
  const roll = dice(8519);
  const rulesOf = SCHEMAS.rule.omit({ id: true, device: true, place: true }).array();
  let refused = 0;
  for (let i = 0; i < 120; i += 1) {
    const value = JSON.parse(whole) as Json;
    for (let n = roll(3); n >= 0; n -= 1) {
      const place = someplace(roll, value);
      if (place === null) continue;
      const [holder, key] = place;
      if (roll(4) === 0) delete holder[key];
      else if (roll(4) === 0) holder[`${key}x`] = holder[key];
      else holder[key] = WRONG[roll(WRONG.length)];
    }
    const read = readRuleData(indexOf(plan), gatewayOf(plan), JSON.stringify(value));
    if (typeof read === "string" || read.faults.length > 0) refused += 1;
    if (typeof read === "string") expect(read).toMatch(/\.$/);
    else
      expect(rulesOf.safeParse(z.encode(rulesOf, read.rules as z.output<typeof rulesOf>)).success).toBe(true);
  }
  expect(refused).toBeGreaterThan(45);
});

const subnets = (source: string | undefined, target: string) => ({
  ipv4: {
    ...(source === undefined ? {} : { "source-ipv4-network": source }),
    "destination-ipv4-network": target,
  },
});

test("a subnet takes in the device's own address in it: said, unless an entry before has decided it", () => {
  const open = entry(subnets("10.24.20.0/24", "10.24.30.0/24"));
  const said = readFrom(fennelStreet(), lists([open]));
  expect(said.rules).toHaveLength(1);
  expect(said.notes).toEqual([
    expect.stringMatching(/lets in what is for the device itself at 10\.24\.30\.1,/),
  ]);
  const own = indexOf(fennelStreet())
    .interfacesOf(gatewayOf(fennelStreet()).id)
    .flatMap(({ addresses4 }) =>
      addresses4.map((address) => subnets(undefined, `${formatAddress(address)}/32`)),
    );
  const shut = (rest: object) =>
    own.map((matches) => entry({ ...matches, ...rest }, { actions: { forwarding: "drop" } }));
  expect(readFrom(fennelStreet(), lists([...shut({}), open])).notes).toEqual([]);
  expect(readFrom(fennelStreet(), lists([...shut({ tcp: {} }), open])).notes).toHaveLength(1);
});

test("an entry for blocks in which all the device's addresses lie is for the device, too", () => {
  const { rules, notes } = readFrom(
    fennelStreet(),
    lists(["0.0.0.0/1", "128.0.0.0/1"].map((half) => entry(subnets("10.24.20.0/24", half)))),
  );
  expect(notes).toEqual([]);
  expect(rules.map(({ to }) => to.some(({ at }) => at === "gateway"))).toEqual([true]);
});
