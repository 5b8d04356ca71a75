import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress, type Ipv4 } from "../address";
import { must } from "../kernel";
import {
  afterEdits,
  emptyPlan,
  NO_BASELINE,
  PlanEdits,
  PlanIndex,
  segmentHolding,
  type Plan,
  type Port,
  type Vid,
  type WallEnd,
} from "../plan";
import { asClient, managementAddress, probe, type Outcome } from "../probe";
import { TREE } from "../spanning-tree";
import { carryExactly, setWall } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { dice } from "../testing/plants";
import { aSite } from "../testing/build-plan";
import { mixedSite } from "../testing/mixed-site";
import type { Fact } from "./fact";
import { factsOf, rolesOf } from "./facts";
import { judge } from "./judge";
import { withIpv6 } from "../testing/with-ipv6";
import { testSheet, type TestSheet } from "./sheet";
import { cablesOnRings, withoutPulled } from "./pulled";
import { lookedUp } from "./shown";
import type { SiteTest } from "./tests";

/** The site while what a reading wants pulled out is. */
const triedOn = (site: PlanIndex, { pulled }: SiteTest): PlanIndex =>
  pulled === null ? site : withoutPulled(site, pulled);

/** An address with its gateway and name servers, as a laptop prints them. */
function printed({ lease }: Outcome): string {
  // An IPv6 address is made by the client itself.
  if (lease === null || (!lease.leased && typeof lease.address === "number")) return "none";
  return [
    formatAddress(lease.address),
    `Gateway ${lease.gateway === null ? "" : formatAddress(lease.gateway)}`,
    `DNS ${lease.dns.map(formatAddress).join(" ")}`,
  ].join("\n");
}

/** What a person would read on a site that is otherwise than planned. */
function read(site: PlanIndex, test: SiteTest, facts: readonly Fact[]): string {
  const { question, expected } = test;
  if (expected.is === "measured") return `${expected.least ?? expected.most}`;
  if (question === null) {
    const own = facts.filter(({ id }) => test.proves.includes(id));
    const again = lookedUp(site, own).find(({ id }) => id === test.id);
    return JSON.stringify(again?.expected ?? null);
  }
  const { from } = question;
  if (expected.is === "no link")
    return from.at === "port" && site.plan.port.get(from.port)?.enabled === true ? "link" : "none";
  const outcome = probe(triedOn(site, test), question, () => "");
  if (expected.is === "answer" || expected.is === "silence") return outcome.cause === null ? "yes" : "no";
  return printed(outcome);
}

const isRight = (planned: PlanIndex, site: PlanIndex, test: SiteTest, facts: readonly Fact[]): boolean =>
  test.expected.is === "shown"
    ? read(site, test, facts) === read(planned, test, facts)
    : must(judge(planned, test.expected, read(site, test, facts)), "what is read can be judged").isRight;

/** The VLANs of a port without one. */
const without = ({ untagged, tagged, pvid }: Port, vid: number): Partial<Port> => ({
  untagged: untagged.filter((carried) => carried !== vid),
  tagged: tagged.filter((carried) => carried !== vid),
  pvid: pvid === vid ? null : pvid,
});

const endsOf = (index: PlanIndex, keys: readonly string[]): WallEnd[] =>
  keys.map((key) => (key === "internet" || key === "gateway" ? { at: key } : { at: "zone", zone: key }));

type Breaker = (index: PlanIndex, edits: PlanEdits, ids: readonly string[]) => void;

/** What breaks a fact of each kind, written apart from what proves it. */
const BREAKERS: Readonly<Record<Fact["kind"], Breaker>> = {
  vlan: (index, edits, [port = "", vid = ""]) => {
    const lag = index.plan.port.get(port)?.lag ?? null;
    const own = lag === null ? [port] : (index.groups("portsByLag").get(lag) ?? []).map(({ id }) => id);
    for (const id of own)
      edits.patch("port", id, without(must(index.plan.port.get(id), "the port"), Number(vid)));
  },
  role: (index, edits, [port = ""]) => {
    const role = must(
      rolesOf(index).find(({ id }) => id === `role ${port}`),
      "the role",
    );
    const [first] = role.ports;
    const other = [...index.plan.vlan.values()].find(
      ({ domain, vid }) => domain === role.device.domain && vid !== first?.pvid,
    )?.vid as Vid;
    for (const { id, enabled, guards } of role.ports)
      if (!enabled) edits.patch("port", id, { enabled: true });
      else if (guards.signIn) edits.patch("port", id, { guards: { ...guards, signIn: false } });
      else edits.patch("port", id, { pvid: other, untagged: [other], tagged: [], admit: "all" });
  },
  wireless: (index, edits, [ssid = ""]) => {
    const own = must(index.plan.ssid.get(ssid), "the name");
    const other = [...index.plan.segment.values()].find(
      ({ id, vlan }) => id !== own.segment && vlan !== null,
    );
    if (other !== undefined) edits.patch("ssid", ssid, { segment: other.id });
  },
  scope: (_, edits, [scope = ""]) => edits.remove("scope", scope),
  ipv6: (_, edits, [segment = ""]) => edits.patch("segment", segment, { advertise: "none" }),
  address: (index, edits, [host = ""]) => {
    const { manner, ipv4 } = must(index.plan.host.get(host), "the device");
    const near = [16, 4, 2, 1].map((bit) => (must(ipv4, "an address") ^ bit) as Ipv4);
    const taken = index.groups("hostsByAddress");
    const held = segmentHolding(index.plan, must(ipv4, "an address"))?.id;
    const other =
      near.find((ipv4) => segmentHolding(index.plan, ipv4)?.id === held && !taken.has(ipv4)) ??
      must(near[0], "another address");
    edits.patch("host", host, {
      ipv4: other,
      ...(manner === "typed" ? { attachment: { at: "unplaced" } } : {}),
    });
  },
  "way in": (index, edits, [device = ""]) => {
    for (const leg of index.interfacesOf(device))
      if (leg.addresses4.length > 0 && leg.line === null)
        edits.patch("interface", leg.id, { addresses4: [] });
  },
  baseline: (index, edits, [device = ""]) => {
    const { baseline } = must(index.plan.device.get(device), "the device");
    edits.patch("device", device, { baseline: NO_BASELINE, registration: "" });
    expect(baseline).not.toEqual(NO_BASELINE);
  },
  wall: (index, edits, [from = "", to = "", ...does]) => {
    const [a, b] = endsOf(index, [from, to]);
    setWall(edits, () => "00000000-0000-7000-8000-0000000000aa", {
      from: must(a, "an end"),
      to: must(b, "an end"),
      door: does[0] === "lets" ? "closed" : "open",
      services: [],
      reason: "",
    });
  },
  tree: (index, edits, [device = ""]) => {
    const own = must(index.plan.device.get(device), "the device");
    const root = index.derived(TREE).rootOf.get(device)?.id;
    if (root === device) edits.patch("device", device, { tree: { ...own.tree, priority: 61_440 } });
    else edits.patch("device", device, { tree: { ...own.tree, priority: 0 } });
    // A root of priority 0 could stay it by its address.
    const gear = index.plan.device.get(root ?? "");
    if (gear !== undefined && gear.id !== device)
      edits.patch("device", gear.id, { tree: { ...gear.tree, priority: 61_440 } });
  },
  speed: (index, edits, [link = ""]) => {
    const { a } = must(index.plan.link.get(link), "the cable");
    edits.patch("port", a, { speedMbps: 10, optic: "none" });
  },
  power: (_, edits, [port = ""]) => edits.patch("port", port, { poeMw: 0 }),
  spare: (index, edits, [link = ""]) => {
    // Another cable of its ring is gone: then it is the only way.
    const other = must(
      cablesOnRings(index).find(({ id }) => {
        const site = withoutPulled(index, { what: "link", id });
        return id !== link && !cablesOnRings(site).some((cable) => cable.id === link);
      }),
      "a cable that it stands by for",
    );
    edits.remove("link", other.id);
  },
  "sign-in": (index, edits, [profile = "", situation = ""]) => {
    const own = must(index.plan.signIn.get(profile), "the sign-in");
    // Where nobody gives addresses, who is let in shows no more than who is not.
    const usual = [...index.plan.port.values()].find(({ guards }) => guards.signIn)?.pvid ?? null;
    if (situation === "known") edits.patch("signIn", profile, { servers: [] });
    if (situation === "silent")
      edits.patch("signIn", profile, {
        serverDown: own.serverDown === null ? usual : null,
      });
    if (situation !== "stranger") return;
    for (const { id, guards } of index.plan.port.values())
      if (guards.signIn) edits.patch("port", id, { guards: { ...guards, signIn: false } });
  },
  // No edit of a plan makes a name weaker or a cable worse: an instrument tells.
  level: () => undefined,
  cable: () => undefined,
  failover: (index, edits, [line = ""]) => {
    for (const leg of index.plan.interface.values())
      if (leg.line !== null && leg.line !== line && leg.port !== null)
        edits.patch("port", leg.port, { enabled: false });
  },
};

function broken(index: PlanIndex, fact: Fact): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  BREAKERS[fact.kind](index, edits, fact.id.slice(fact.kind.length + 1).split(" "));
  return edits.changes().length === 0 ? null : afterEdits(index, edits);
}

/** Facts that would be broken without any of the readings that claim to prove them coming out otherwise. */
function unnoticed(index: PlanIndex, { tests, facts }: TestSheet): string[] {
  return facts.flatMap((fact) => {
    const claim = tests.filter(({ proves }) => proves.includes(fact.id));
    if (claim.length === 0) return [];
    const site = broken(index, fact);
    if (site === null || claim.some((test) => !isRight(index, site, test, facts))) return [];
    return [
      `${fact.kind}: ${fact.words}, claimed by ${claim.map(({ does, at }) => `${at}: ${does}`).join(" | ")}`,
    ];
  });
}

const SITES: readonly (readonly [string, Plan])[] = [
  ["house", lockkeepersHouse()],
  ["practice", fennelStreet()],
  ["works", bramblewick()],
  ["practice with IPv6", withIpv6(fennelStreet()).plan],
];

describe.each(SITES)("%s", (_, plan) => {
  const index = PlanIndex.of(plan);
  const sheet = testSheet(index);

  test("every reading comes out as expected on the site as planned", () => {
    for (const siteTest of sheet.tests)
      expect([siteTest.id, isRight(index, index, siteTest, sheet.facts)]).toEqual([siteTest.id, true]);
  });

  test("no fact is left: a reading proves it, or it says why none can", () => {
    const proven = new Set(sheet.tests.flatMap(({ proves }) => proves));
    const said = new Set(sheet.unproven.map(({ fact }) => fact.id));
    for (const { id, kind } of sheet.facts) {
      expect([id, proven.has(id) !== said.has(id)]).toEqual([id, true]);
      if (!["wall", "spare", "failover", "sign-in"].includes(kind))
        expect([id, proven.has(id)]).toEqual([id, true]);
    }
    expect(sheet.atLeast).toBeLessThanOrEqual(sheet.tests.length);
    expect(new Set(sheet.tests.map(({ id }) => id)).size).toBe(sheet.tests.length);
    const asked = sheet.tests.filter(({ question, pulled }) => question !== null && pulled === null);
    const questions = asked.map(({ question }) =>
      JSON.stringify(question, (_, value: unknown) => (typeof value === "bigint" ? `${value}n` : value)),
    );
    expect(new Set(questions).size).toBe(asked.length);
  });

  test("what breaks a fact changes a reading that claims to prove it", () => {
    expect(unnoticed(index, sheet)).toEqual([]);
  });

  test("the same questions keep their names, whatever order the rows are in", () => {
    const turned: Plan = {
      ...plan,
      port: new Map([...plan.port].reverse()),
      host: new Map([...plan.host].reverse()),
      device: new Map([...plan.device].reverse()),
    };
    const again = testSheet(PlanIndex.of(turned));
    expect(again.tests.map(({ id, expected }) => [id, expected])).toEqual(
      sheet.tests.map(({ id, expected }) => [id, expected]),
    );
  });
});

test("each segment with IPv6 is proven by a laptop there, or on its router", () => {
  const index = withIpv6(fennelStreet());
  const { tests, facts } = testSheet(index);
  const own = facts.filter(({ kind }) => kind === "ipv6");
  expect(own.length).toBeGreaterThan(5);
  for (const { id, words } of own)
    expect([words, tests.some(({ proves }) => proves.includes(id))]).toEqual([words, true]);
  const laptops = tests.filter(({ question }) => question?.family === 6);
  expect(laptops.length).toBeGreaterThan(5);
  expect(laptops.every(({ expected }) => expected.is === "lease" && expected.gateway === null)).toBe(true);
});

test("on random sites with routers in a row, routed ports or no VLANs a broken fact is noticed", () => {
  const roll = dice(151);
  let claims = 0;
  for (let round = 0; round < 40; round += 1) {
    const index = PlanIndex.of(mixedSite(roll));
    const sheet = testSheet(index);
    claims += sheet.tests.length;
    expect([round, unnoticed(index, sheet)]).toEqual([round, []]);
  }
  expect(claims).toBeGreaterThan(200);
});

test("a site without gear has nothing to prove", () => {
  expect(testSheet(PlanIndex.of(emptyPlan(aSite()))).tests).toEqual([]);
});

test("a way in is opened from the segment for gear where there is one", () => {
  const index = PlanIndex.of(fennelStreet());
  const pages = testSheet(index).tests.filter(({ question }) => question?.goal.to === "device");
  expect(pages).toHaveLength(
    [...index.plan.device.values()].filter((device) => managementAddress(index, device, 4) !== undefined)
      .length,
  );
  for (const { question } of pages) {
    const { lease } = probe(index, asClient(must(question, "a question").from, { to: "address" }), () => "");
    expect(index.plan.segment.get(lease?.segment ?? "")?.management).toBe(true);
  }
  expect(factsOf(index).filter(({ kind }) => kind === "way in")).toHaveLength(pages.length);
});

test("on a ring every cable on somebody's way is pulled out; the one that stands by says why it is not", () => {
  const index = PlanIndex.of(
    donePlan(afterEdit(bramblewick(), ({ edits, index: of }) => carryExactly(edits, of))),
  );
  const { tests, facts, unproven } = testSheet(index);
  const ring = facts.filter(({ kind }) => kind === "spare");
  expect(ring).toHaveLength(cablesOnRings(index).length);
  expect(ring.length).toBeGreaterThan(3);
  const pulled = tests.filter((siteTest) => siteTest.pulled?.what === "link");
  // One cable of a ring stands by: nobody's way leads over it.
  expect(pulled).toHaveLength(ring.length - 1);
  expect(unproven.filter(({ fact }) => fact.kind === "spare").map(({ why }) => why)).toEqual([
    expect.stringMatching(/^Nobody’s way leads over the cable /),
  ]);
  for (const { does } of pulled) expect(does).toMatch(/At a quiet hour: whoever works there is cut off/);
});
