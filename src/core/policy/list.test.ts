import { formatPrefix } from "../address";
import { byNaturalText, must } from "../kernel";
import {
  BLANK_EXCEPTION,
  BLANK_LINE,
  PlanIndex,
  type EntityOf,
  type Plan,
  type Segment,
  type Wall,
  type WallEnd,
} from "../plan";
import {
  aDevice,
  aDomain,
  aHost,
  anInterface,
  aScope,
  aSegment,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { ip, net, net6 } from "../testing/written";
import type { Side } from "./filter";
import { wallBetween } from "./decide";
import { doorsInOrder, wallCell } from "./grid";
import { serviceText } from "./services";
import { classText } from "./traffic-classes";
import { answersTo, WALL_RULES, type WallRule } from "./wall-rules";

// The whole list of a small site, rule by rule: what the gateway answers itself, what is open inside a zone,
// what forwards let in, and the doors.

const id = testId;
const zones = {
  staff: aZone({ id: id("zone", "a staff"), name: "Staff", insideOpen: true }),
  guests: aZone({ id: id("zone", "b guests"), name: "Guests", insideOpen: false }),
};
const router = aDevice({ name: "Router", kind: "gateway", domain: id("domain", "main") });
const segment = (name: string, zone: string, fields: Partial<Segment> = {}): Segment =>
  aSegment({ name, zone, ...fields });
const staff = segment("Staff", zones.staff.id, { prefixes4: [net("10.24.20.0/24")] });
const guests = segment("Guests", zones.guests.id, { prefixes4: [net("10.24.30.0/24")] });
const legs = [
  anInterface({
    id: id("interface", "staff"),
    device: router.id,
    name: "staff",
    segment: staff.id,
    addresses4: [ip("10.24.20.1")],
  }),
  anInterface({
    id: id("interface", "guests"),
    device: router.id,
    name: "guests",
    segment: guests.id,
    addresses4: [ip("10.24.30.1")],
  }),
];
const server = aHost({
  name: "server",
  segment: staff.id,
  manner: "typed",
  ipv4: ip("10.24.20.5"),
});
const end = (zone: keyof typeof zones): WallEnd => ({ at: "zone", zone: zones[zone].id });
const wall = (name: string, fields: Partial<Wall>): Wall => ({
  id: id("wall", name),
  from: end("guests"),
  to: end("staff"),
  door: "closed",
  services: [],
  reason: "",
  conduit: null,
  ...fields,
});

interface Parts {
  readonly router?: EntityOf<"device">;
  readonly exceptions?: readonly EntityOf<"exception">[];
  readonly segments?: readonly Segment[];
  readonly walls?: readonly Wall[];
  readonly scopes?: readonly EntityOf<"scope">[];
  readonly forwards?: readonly EntityOf<"forward">[];
  readonly legs?: readonly EntityOf<"interface">[];
  readonly hosts?: readonly EntityOf<"host">[];
}
function site({
  segments = [staff, guests],
  walls = [],
  scopes = [],
  forwards = [],
  legs: own = legs,
  hosts = [server],
  router: gateway = router,
  exceptions = [],
}: Parts = {}): Plan {
  return planWith({
    domain: [aDomain()],
    zone: [zones.staff, zones.guests],
    device: [gateway],
    exception: exceptions,
    segment: segments,
    interface: own,
    host: hosts,
    scope: scopes,
    line: [{ ...BLANK_LINE, id: id("line", "line"), name: "Fibre" }],
    forward: forwards,
    wall: walls,
  });
}
/** A rule as one line: from, to, where, what, ports, why. */
const lineOf = ({ from, to, services, action, why }: WallRule): string => {
  const name = (sides: readonly Side[]) =>
    sides
      .map(({ network }) => Object.values(zones).find((zone) => zone.id === network)?.name ?? network)
      .join("+");
  const held = [...from, ...to].flatMap(({ prefixes }) => (prefixes ?? []).map(formatPrefix)).join(",");
  return services
    .map(({ protocol, ports }) => {
      const numbers = (ports ?? []).map(([a, b]) => (a === b ? `${a}` : `${a}-${b}`)).join(",");
      return [`${name(from)}>${name(to)}`, held, protocol, numbers, action, why]
        .filter((cell) => cell !== "")
        .join(" | ");
    })
    .join(" & ");
};
const rulesOf = (parts: Parts = {}, today: string | null = null) =>
  must(PlanIndex.of(site(parts), today).derived(WALL_RULES).get(router.id), "the router's rules");
const listOf = (parts: Parts = {}) => rulesOf(parts).rules.map(lineOf);
const ECHOES = [
  "Staff>router | icmp | accept | an echo from inside is answered",
  "Guests>router | icmp | accept | an echo from inside is answered",
];
const INSIDE = "Staff>Staff | any | accept | the segments of Staff may talk to one another";
const sorted = (lines: readonly string[]) => [...lines].sort();
const https = { name: "https", protocol: "tcp", ports: [[443, 443]] } as const;
const forward = (fields: Partial<EntityOf<"forward">> = {}): EntityOf<"forward"> => ({
  id: id("forward", "page"),
  line: id("line", "line"),
  name: "page",
  protocol: "tcp",
  ports: [8443, 8444],
  host: server.id,
  toPort: null,
  hairpin: false,
  sources: [],
  until: null,
  ...fields,
});

describe("the list of a gateway", () => {
  test("with nothing planned: echoes from inside, and what is open within a zone; all else is dropped", () => {
    const rules = rulesOf();
    expect(sorted(rules.rules.map(lineOf))).toEqual(sorted([...ECHOES, INSIDE]));
    expect([rules.established, rules.forwardDefault, rules.inputDefault]).toEqual([true, "drop", "drop"]);
  });
  test("DHCP is answered in the zones where a device serves, or a leg relays", () => {
    const dhcp = (zone: string) => `${zone}>router | udp | 67-68 | accept | DHCP is answered here`;
    const own = aScope({ segment: staff.id, serverDevice: router.id });
    const byHost = aScope({ segment: guests.id, serverHost: server.id });
    expect(listOf({ scopes: [own] })).toContain(dhcp("Staff"));
    expect(listOf({ scopes: [own] })).not.toContain(dhcp("Guests"));
    const six = { ...staff, prefixes6: [net6("fd00:24:0:20::/64")] };
    const dhcp6 = dhcp("Staff").replace("67-68", "547");
    expect(listOf({ scopes: [own] })).not.toContain(dhcp6);
    expect(listOf({ scopes: [own], segments: [six, guests] })).toContain(dhcp6);
    expect(listOf({ scopes: [byHost] })).not.toContain(dhcp("Guests"));
    const [first, second] = legs;
    const relaying = [must(first, "a leg"), { ...must(second, "a leg"), relayTo: ip("10.24.20.5") }];
    expect(listOf({ scopes: [byHost], legs: relaying })).toContain(dhcp("Guests"));
    expect(listOf({ scopes: [byHost], legs: relaying })).not.toContain(dhcp("Staff"));
  });
  test("names and time are answered where clients are told to ask it, and nowhere else", () => {
    const names = ["udp", "tcp"].map(
      (protocol) => `Staff>router | ${protocol} | 53 | accept | DNS is answered here`,
    );
    const time = "Staff>router | udp | 123 | accept | time (NTP) is answered here";
    const told = { ...staff, dns: [ip("10.24.20.1"), ip("10.24.20.5")], time: [ip("10.24.30.1")] };
    expect(sorted(listOf({ segments: [told, guests] }))).toEqual(sorted([...names, time, ...ECHOES, INSIDE]));
    const elsewhere = { ...staff, dns: [ip("10.24.20.5")], time: [ip("10.24.20.5")] };
    expect(sorted(listOf({ segments: [elsewhere, guests] }))).toEqual(sorted([...ECHOES, INSIDE]));
  });
  test("a forward lets in to its host alone, at the port inside; without a host's address it is none", () => {
    expect(listOf({ forwards: [forward()] })).toContain(
      "internet>Staff | 10.24.20.5/32 | tcp | 8443-8444 | accept | the forward page lets it in",
    );
    expect(listOf({ forwards: [forward({ toPort: 443, protocol: "udp" })] })).toContain(
      "internet>Staff | 10.24.20.5/32 | udp | 443 | accept | the forward page lets it in",
    );
    for (const lost of [
      { ...server, ipv4: null },
      { ...server, segment: null },
    ])
      expect(
        listOf({ forwards: [forward()], hosts: [lost] }).filter((line) => line.includes("forward")),
      ).toEqual([]);
  });
  test("a door is a rule for each service, an open wall one, a closed one none; the router's none", () => {
    const doors = (fields: Partial<Wall>) =>
      listOf({ walls: [wall("one", fields)] }).filter((line) => !ECHOES.includes(line) && line !== INSIDE);
    expect(doors({ door: "open" })).toEqual(["Guests>Staff | any | accept | open"]);
    expect(doors({ door: "closed" })).toEqual([]);
    expect(doors({ door: "open", to: { at: "internet" } })).toEqual([
      "Guests>internet | any | accept | open",
    ]);
    expect(doors({ door: "open", to: { at: "gateway" } })).toEqual(["Guests>router | any | accept | open"]);
    expect(doors({ door: "open", from: { at: "gateway" }, to: end("staff") })).toEqual([]);
    expect(doors({ door: "open", from: { at: "internet" } })).toEqual([
      "internet>Staff | any | accept | open",
    ]);
    const ping = { name: "ping", protocol: "icmp", ports: [] } as const;
    expect(
      doors({
        door: "services",
        services: [
          { ...https, ports: [[443, 443]] },
          { ...ping, ports: [] },
        ],
      }),
    ).toEqual([
      "Guests>Staff | tcp | 443 | accept | a door for https",
      "Guests>Staff | icmp | accept | a door for ping",
    ]);
  });
  test("what it answers comes first, then the inside of zones, then forwards, then doors", () => {
    const list = listOf({ forwards: [forward()], walls: [wall("one", { door: "open" })] });
    const places = ["an echo", "may talk", "the forward", "| open"].map((words) =>
      list.findIndex((line) => line.includes(words)),
    );
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places.every((place) => place >= 0)).toBe(true);
  });
});

describe("the list of a gateway, on a day and with what else it does", () => {
  const forwards = [forward({ until: "2026-05-31" })];
  test.each([
    [null, 1],
    ["2026-05-31", 1],
    ["2026-06-01", 0],
  ])("a forward lets in to its last day: %s", (today, count) => {
    const lets = ({ why }: WallRule) => why === "the forward page lets it in";
    expect(rulesOf({ forwards }, today).rules.filter(lets)).toHaveLength(count);
    expect(rulesOf({ forwards: [forward()] }, today).rules.filter(lets)).toHaveLength(1);
  });
  test("a forward lets in from anywhere outside, or from where it says", () => {
    const from = (sources: EntityOf<"forward">["sources"]) =>
      rulesOf({ forwards: [forward({ sources })] }).rules.find(({ why }) => why.startsWith("the forward"))
        ?.from;
    expect(from([])).toEqual([{ network: "internet", prefixes: null }]);
    const known = [net("198.51.100.0/28")];
    expect(from(known)).toEqual([{ network: "internet", prefixes: known }]);
  });
  test("announcements are told where it repeats them, once for a zone", () => {
    const more = segment("Staff upstairs", zones.staff.id);
    const told = { ...router, repeatsDiscovery: [staff.id, more.id] };
    expect(
      listOf({ router: told, segments: [staff, more, guests] }).filter((line) => /5353/.test(line)),
    ).toEqual(["Staff>router | udp | 5353 | accept | what there is in one segment is told in others here"]);
  });
  test("one leg that relays is enough, and one of another device's is not", () => {
    const relaying = { ...must(legs[0], "a leg"), id: id("interface", "second"), relayTo: ip("10.24.30.9") };
    const dhcp = (lines: readonly string[]) => lines.filter((line) => /67-68/.test(line)).length;
    expect(dhcp(listOf({ legs: [...legs, relaying] }))).toBe(1);
    const other = aDevice({ name: "Other", domain: id("domain", "main") });
    const away = PlanIndex.of(
      planWith({
        domain: [aDomain()],
        zone: [zones.staff, zones.guests],
        device: [router, other],
        segment: [staff, guests],
        interface: [...legs, { ...relaying, device: other.id }],
      }),
    );
    expect(dhcp(must(away.derived(WALL_RULES).get(router.id), "its rules").rules.map(lineOf))).toBe(0);
  });
  test("what passes beside the walls says by which exception, for what, and who answers for it", () => {
    const exception = (fields: Partial<EntityOf<"exception">>): EntityOf<"exception"> => ({
      ...BLANK_EXCEPTION,
      id: id("exception", "till"),
      name: "Till",
      from: { at: "zone", zone: zones.guests.id },
      to: { at: "host", host: server.id },
      ...fields,
    });
    const line = "Guests>Staff | 10.24.20.5/32 | any | accept | exception Till";
    for (const [fields, words] of [
      [{}, line],
      [{ reason: "receipts" }, `${line}: receipts`],
      [{ owner: "R. Hale" }, `${line} (R. Hale)`],
      [{ reason: "receipts", owner: "R. Hale" }, `${line}: receipts (R. Hale)`],
    ] as const) {
      const made = exception(fields);
      const { rules } = rulesOf({ exceptions: [made] });
      expect(rules.map(lineOf)).toContain(words);
      expect(rules.find(({ why }) => why.startsWith("exception"))).toMatchObject({
        exception: made,
        wall: null,
      });
    }
  });
});

describe("the list of a filter that remembers nothing", () => {
  const forgetful = { ...router, filter: { ...router.filter, list: "found" as const, established: false } };
  const door = wall("one", {
    door: "services",
    services: [
      { ...https, ports: [[443, 443]] },
      { name: "ping", protocol: "icmp", ports: [] },
      { name: "sip", protocol: "udp", ports: [[5060, 5060]] },
    ],
  });
  const rules = () => rulesOf({ router: forgetful, walls: [door] });

  test("lets answers back by rules of their own, after all others: to the ports from which one asks", () => {
    expect(rules().established).toBe(false);
    const back = rules().rules.filter(({ answers }) => answers === true);
    expect(back.map(lineOf)).toEqual([
      INSIDE,
      "Staff>Guests | tcp | 1024-65535 | accept | a door for https",
      "Staff>Guests | icmp | accept | a door for ping",
      "Staff>Guests | udp | 1024-65535 | accept | a door for sip",
    ]);
    expect(rules().rules.slice(-back.length)).toEqual(back);
    expect(back.at(-1)?.wall).toEqual(door);
  });
  test("the device's own answers need none, and one that remembers has none", () => {
    expect(
      answersTo({ from: [], to: [{ network: "router", prefixes: null }], services: [], action: "accept" }),
    ).toBe(null);
    const both = {
      from: [{ network: "any", prefixes: null }],
      to: [
        { network: "router", prefixes: null },
        { network: zones.staff.id, prefixes: null },
      ],
      services: [],
    } as const;
    expect(answersTo({ ...both, action: "accept" })?.from).toEqual([
      { network: zones.staff.id, prefixes: null },
    ]);
    expect(answersTo({ ...both, action: "drop" })).toBeNull();
    expect(rulesOf({ walls: [door] }).rules.some(({ answers }) => answers === true)).toBe(false);
  });
  test("walls come in the order of their ids, in whatever order they were written", () => {
    const walls = [
      wall("two", { door: "open", to: { at: "internet" } }),
      wall("three", { door: "open", from: end("staff"), to: { at: "internet" } }),
      door,
    ];
    const order = (all: readonly Wall[]) =>
      rulesOf({ walls: all }).rules.flatMap((made) => made.wall?.id ?? []);
    expect(order(walls)).toEqual(order([...walls].reverse()));
    expect([...new Set(order(walls))]).toEqual(walls.map((made) => made.id).sort(byNaturalText));
  });
});

test("a class is called by its name, code point and priority; what is like any other by its name alone", () => {
  expect(classText("voice")).toBe("voice, EF 46, priority 5");
  expect(classText("bestEffort")).toBe("like any other");
});

describe("a cell of the grid", () => {
  const index = (walls: readonly Wall[]) => PlanIndex.of(site({ walls }));
  test.each([
    ["itself", { at: "internet" }, { at: "internet" }, { kind: "itself" }],
    ["inside an open zone", end("staff"), end("staff"), { kind: "inside", open: true }],
    ["inside one kept apart", end("guests"), end("guests"), { kind: "inside", open: false }],
    [
      "a wall without an entry",
      end("staff"),
      end("guests"),
      { kind: "wall", door: "closed", text: "closed" },
    ],
  ] as const)("%s", (_, from, to, wanted) => expect(wallCell(index([]), from, to)).toEqual(wanted));
  test("open, its services, or closed", () => {
    const cell = (fields: Partial<Wall>) =>
      wallCell(index([wall("one", fields)]), end("guests"), end("staff"));
    expect(cell({ door: "open" })).toEqual({ kind: "wall", door: "open", text: "open" });
    expect(cell({ door: "closed" })).toEqual({ kind: "wall", door: "closed", text: "closed" });
    const services: Wall["services"] = [
      { ...https, ports: [[443, 443]] },
      { name: "ssh", protocol: "tcp", ports: [[22, 22]] },
    ];
    expect(cell({ door: "services", services })).toEqual({
      kind: "wall",
      door: "services",
      text: "https ssh",
    });
  });
  test("the doors that stand open, closed ones left out", () => {
    const open = wall("one", { door: "open" });
    const shut = wall("two", { from: end("staff"), to: end("guests") });
    expect(doorsInOrder(index([open, shut]))).toEqual([open]);
    expect(wallBetween(index([open, shut]), end("staff"), end("guests"))).toEqual(shut);
    expect(wallBetween(index([open]), end("staff"), end("guests"))).toBeNull();
  });
});

test.each([
  [{ name: "https", protocol: "tcp", ports: [[443, 443]] }, "https, TCP 443"],
  [{ name: "sip", protocol: "udp", ports: [[5060, 5061]] }, "sip, UDP 5060 to 5061"],
  [
    {
      name: "dicom",
      protocol: "tcp",
      ports: [
        [104, 104],
        [11112, 11112],
      ],
    },
    "dicom, TCP 104 and 11112",
  ],
  [
    {
      name: "mail",
      protocol: "tcp",
      ports: [
        [465, 465],
        [587, 587],
        [993, 995],
      ],
    },
    "mail, TCP 465, 587 and 993 to 995",
  ],
  [{ name: "ping", protocol: "icmp", ports: [] }, "ping, ICMP"],
] as const)("%j in words", (service, words) =>
  expect(serviceText({ ...service, ports: service.ports.map(([a, b]): [number, number] => [a, b]) })).toBe(
    words,
  ),
);
