import fc from "fast-check";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import {
  containsAddress,
  containsPrefix,
  formatAddress,
  formatPrefix,
  prefixesOverlap,
  type Prefix4,
} from "../../address";
import { listFindings, runChecks } from "../../checks";
import { must } from "../../kernel";
import { PlanIndex, type Plan, type Segment } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { prefix as net } from "../../testing/written";
import { allocate, renumberBlock, writeAllocation, devicesOf } from "./allocate";
import { forbiddenRanges } from "./forbidden";
import { mergePartners, mergeSegments, siteSummary, splitSegment } from "./split-merge";
import { numberAll6 } from "./number6";
import { renumber } from "./renumber";

const PLANS: readonly Plan[] = [fennelStreet(), lockkeepersHouse(), bramblewick()];
const net4 = (text: string): Prefix4 => net(text) as Prefix4;

const named = (plan: Plan, name: string): Segment =>
  must(
    [...plan.segment.values()].find((s) => s.name === name),
    name,
  );

/** What a plan says of addresses, apart from the addresses themselves: who has one, how many are offered. */
const shape = (plan: Plan) => ({
  hosts: [...plan.host.values()].map((h) => [h.id, h.ipv4 === null, h.manner]),
  pools: [...plan.scope.values()].map((s) => s.pools.map((p) => BigInt(p.last) - BigInt(p.first))),
});

describe("renumbering", () => {
  const anyPlan = fc.nat(PLANS.length - 1).map((n) => must(PLANS[n], "a plan"));

  test("one segment there and back is the plan that was, and every fixed address keeps its offset", () => {
    fc.assert(
      fc.property(anyPlan, fc.nat(20), fc.integer({ min: 0, max: 250 }), (plan, n, third) => {
        const segment = must([...plan.segment.values()][n % plan.segment.size], "a segment");
        const from = must(segment.prefixes4[0], "a subnet");
        const to = net4(`172.20.${third}.0/${Math.min(24, from.length)}`);
        const there = donePlan(
          afterEdit(plan, ({ edits }) => renumber(edits, [{ segment: segment.id, from, to }])),
        );
        for (const host of plan.host.values()) {
          const moved = must(there.host.get(host.id), "the host");
          if (host.segment !== segment.id || host.ipv4 === null || !containsAddress(from, host.ipv4))
            expect(moved.ipv4).toBe(host.ipv4);
          else expect(must(moved.ipv4, "an address") - to.network).toBe(host.ipv4 - from.network);
        }
        expect(shape(there)).toEqual(shape(plan));
        expect(
          donePlan(
            afterEdit(there, ({ edits }) => renumber(edits, [{ segment: segment.id, from: to, to: from }])),
          ),
        ).toEqual(plan);
      }),
      { numRuns: 60 },
    );
  });

  test("a whole site there and back is the plan that was, findings and all", () => {
    for (const plan of PLANS) {
      const block = must(
        plan.site.blocks.find((b) => b.family === 4),
        "a block",
      );
      const to = net(`172.20.0.0/${Math.max(16, block.length)}`);
      const there = donePlan(afterEdit(plan, ({ edits, index }) => renumberBlock(edits, index, block, to)));
      for (const segment of plan.segment.values()) {
        const [from, moved] = [
          must(segment.prefixes4[0], "a subnet"),
          must(there.segment.get(segment.id)?.prefixes4[0], "a subnet"),
        ];
        expect(containsPrefix(to, moved)).toBe(containsPrefix(block, from));
      }
      const codes = (of: Plan) => listFindings(runChecks(PlanIndex.of(of))).map((f) => f.key);
      expect(codes(there)).toEqual(codes(plan));
      expect(
        donePlan(afterEdit(there, ({ edits, index }) => renumberBlock(edits, index, to, block))),
      ).toEqual(plan);
    }
  });

  test("two segments change places, name servers that point into them follow", () => {
    const plan = fennelStreet();
    const [servers, cards] = [named(plan, "Servers"), named(plan, "Cards")];
    const [a, b] = [must(servers.prefixes4[0], "a subnet"), must(cards.prefixes4[0], "a subnet")];
    const there = donePlan(
      afterEdit(plan, ({ edits }) =>
        renumber(edits, [
          { segment: servers.id, from: a, to: b },
          { segment: cards.id, from: b, to: a },
        ]),
      ),
    );
    expect(named(there, "Servers").prefixes4.map(formatPrefix)).toEqual(["10.24.50.0/28"]);
    expect(named(there, "Staff").dns.map(formatAddress)).toEqual(["10.24.50.10"]);
    expect(listFindings(runChecks(PlanIndex.of(there))).map((f) => f.code)).toEqual(
      listFindings(runChecks(PlanIndex.of(plan))).map((f) => f.code),
    );
  });

  test("what has no place in the new subnet refuses the whole; a forbidden or occupied block, too", () => {
    const plan = fennelStreet();
    const staff = named(plan, "Staff");
    const tooSmall = afterEdit(plan, ({ edits }) =>
      renumber(edits, [
        { segment: staff.id, from: must(staff.prefixes4[0], "a subnet"), to: net("172.20.0.0/28") },
      ]),
    );
    expect(tooSmall).toMatch(/^.+ has 10\.24\.20\.\d+, and 172\.20\.0\.0\/28 has no such place/);
    expect(
      afterEdit(plan, ({ edits, index }) =>
        renumberBlock(edits, index, net("10.24.0.0/17"), net("172.28.0.0/16")),
      ),
    ).toMatch(/must stay clear: the imaging supplier/);
    expect(
      afterEdit(plan, ({ edits, index }) =>
        renumberBlock(edits, index, net("10.24.20.0/24"), net("10.24.30.0/24")),
      ),
    ).toMatch(/would meet Phones, which does not move/);
    expect(
      afterEdit(plan, ({ edits, index }) =>
        renumberBlock(edits, index, net("10.24.0.0/17"), net("172.20.0.0/24")),
      ),
    ).toMatch(/is smaller than/);
    expect(
      afterEdit(plan, ({ edits, index }) =>
        renumberBlock(edits, index, net("10.99.0.0/24"), net("172.20.0.0/24")),
      ),
    ).toBe("No segment lies in 10.99.0.0/24.");
  });
});

describe("allocation", () => {
  test.each([
    ["packed", false],
    ["packed", true],
    ["octet", false],
  ] as const)(
    "%s, doubled %s: no overlap, clear of what is forbidden, room for the plan, deterministic and settled",
    (scheme, doubled) => {
      for (const plan of PLANS) {
        const index = PlanIndex.of(plan);
        const wanted = { blocks: [net4("10.88.0.0/16")], scheme, keep: new Set<string>(), doubled };
        const allocated = allocate(index, wanted);
        expect(allocate(index, wanted)).toEqual(allocated);
        const there = donePlan(afterEdit(plan, ({ edits }) => writeAllocation(edits, allocated)));
        const subnets = [...there.segment.values()].map((s) => must(s.prefixes4[0], "a subnet"));
        for (const [i, subnet] of subnets.entries()) {
          expect(containsPrefix(net("10.88.0.0/16"), subnet)).toBe(true);
          expect(subnets.slice(i + 1).some((other) => prefixesOverlap(other, subnet))).toBe(false);
          expect(forbiddenRanges(plan).some((f) => prefixesOverlap(f.prefix, subnet))).toBe(false);
        }
        for (const segment of there.segment.values()) {
          const prefix = must(segment.prefixes4[0], "a subnet");
          expect(2 ** (32 - prefix.length) - 2).toBeGreaterThanOrEqual(
            devicesOf(PlanIndex.of(there), segment) + 1,
          );
          const vid = PlanIndex.of(there).vidOf(segment);
          expect(vid === null).toBe(segment.tunnel !== null);
          if (scheme === "octet" && vid !== null && vid <= 255)
            expect(Math.floor(prefix.network / 256) % 256).toBe(vid);
        }
        expect(allocate(PlanIndex.of(there), wanted).moves).toEqual([]);
        const before = listFindings(runChecks(index))
          .filter((f) => f.severity === "stop")
          .map((f) => f.key);
        expect(
          listFindings(runChecks(PlanIndex.of(there))).filter(
            (f) => f.severity === "stop" && !before.includes(f.key),
          ),
        ).toEqual([]);
      }
    },
  );

  test("what is kept stays, and others go around it", () => {
    const plan = fennelStreet();
    const staff = named(plan, "Staff");
    const allocated = allocate(PlanIndex.of(plan), {
      blocks: [net4("10.24.0.0/17")],
      scheme: "packed",
      keep: new Set([staff.id]),
      doubled: false,
    });
    expect(allocated.moves.some((m) => m.segment === staff.id)).toBe(false);
    expect(allocated.moves.some((m) => prefixesOverlap(m.to, must(staff.prefixes4[0], "a subnet")))).toBe(
      false,
    );
  });

  test("no room is said, by name, and nothing is written", () => {
    const plan = fennelStreet();
    const allocated = allocate(PlanIndex.of(plan), {
      blocks: [net4("10.88.0.0/26")],
      scheme: "packed",
      keep: new Set(),
      doubled: false,
    });
    expect(afterEdit(plan, ({ edits }) => writeAllocation(edits, allocated))).toMatch(
      /^There is no room for (Guests|Staff|Phones)/,
    );
  });
});

describe("splitting and merging", () => {
  test("a split keeps fixed addresses, gives the upper half VLAN, gateway and pool, and merges", () => {
    const plan = fennelStreet();
    const guests = named(plan, "Guests");
    const split = donePlan(afterEdit(plan, (context) => splitSegment(context, guests.id, "Guests upstairs")));
    const made = named(split, "Guests upstairs");
    expect(made.prefixes4.map(formatPrefix)).toEqual(["10.24.90.128/25"]);
    expect(named(split, "Guests").prefixes4.map(formatPrefix)).toEqual(["10.24.90.0/25"]);
    const index = PlanIndex.of(split);
    expect([
      index.vidOf(made),
      formatAddress(must(index.gatewayOf(made)?.addresses4[0], "a gateway")),
    ]).toEqual([100, "10.24.90.129"]);
    expect(
      index
        .scopesOf(guests.id)
        .flatMap((s) => s.pools.map((p) => [formatAddress(p.first), formatAddress(p.last)])),
    ).toEqual([["10.24.90.90", "10.24.90.126"]]);
    const stops = (of: PlanIndex) =>
      new Set(
        listFindings(runChecks(of))
          .filter(
            (f) => f.severity === "stop" && f.subjects.some((s) => s.id === made.id || s.id === guests.id),
          )
          .map((f) => f.code),
      );
    expect(stops(index)).toEqual(stops(PlanIndex.of(plan)));
    expect(mergePartners(index, named(split, "Guests")).map((s) => s.name)).toEqual(["Guests upstairs"]);
    const merged = donePlan(afterEdit(split, (context) => mergeSegments(context, guests.id, made.id)));
    expect(named(merged, "Guests").prefixes4.map(formatPrefix)).toEqual(["10.24.90.0/24"]);
    expect([...merged.host.values()].map((h) => h.ipv4)).toEqual([...plan.host.values()].map((h) => h.ipv4));
    expect(merged.segment.size).toBe(plan.segment.size);
  });

  test("devices in the upper half go with it", () => {
    const plan = fennelStreet();
    const imaging = named(plan, "Imaging");
    const split = donePlan(
      afterEdit(plan, (context) => splitSegment(context, imaging.id, "Theatre imaging")),
    );
    const moved = [...split.host.values()]
      .filter((h) => h.segment === named(split, "Theatre imaging").id)
      .map((h) => h.name);
    expect(moved).toEqual(
      [...plan.host.values()]
        .filter((h) => h.segment === imaging.id && h.ipv4 !== null && h.ipv4 % 256 >= 32)
        .map((h) => h.name),
    );
    expect(moved.length).toBeGreaterThan(0);
  });

  test("any segment split and merged back has its subnet, its VLAN and its devices' addresses", () => {
    for (const plan of PLANS) {
      for (const segment of plan.segment.values()) {
        const prefix = must(segment.prefixes4[0], "a subnet");
        if (prefix.length >= 30) continue;
        const split = donePlan(
          afterEdit(plan, (context) => splitSegment(context, segment.id, "The other half")),
        );
        const half = named(split, "The other half");
        for (const host of split.host.values())
          if (host.segment === half.id)
            expect(containsAddress(must(half.prefixes4[0], "a subnet"), must(host.ipv4, "an address"))).toBe(
              true,
            );
        const merged = donePlan(afterEdit(split, (context) => mergeSegments(context, segment.id, half.id)));
        expect(merged.segment.get(segment.id)).toEqual(segment);
        expect(merged.host).toEqual(plan.host);
        expect(merged.port).toEqual(plan.port);
        expect(merged.interface).toEqual(plan.interface);
      }
    }
  });

  test("what is no half of one subnet, or stands behind a wall, is not merged", () => {
    const plan = fennelStreet();
    expect(
      afterEdit(plan, (context) => mergeSegments(context, named(plan, "Staff").id, named(plan, "Cards").id)),
    ).toMatch(/not the two halves/);
    expect(afterEdit(plan, (context) => splitSegment(context, named(plan, "Staff").id, " "))).toMatch(
      /Give the new segment a name/,
    );
  });

  test("the summary holds exactly the site's subnets", () => {
    for (const plan of PLANS) {
      const subnets = [...plan.segment.values()].flatMap((s) => [...s.prefixes4, ...s.prefixes6]);
      const summary = siteSummary(plan);
      expect(subnets.every((p) => summary.some((s) => containsPrefix(s, p)))).toBe(true);
      expect(summary.length).toBeLessThanOrEqual(subnets.length);
    }
  });
});

describe("IPv6", () => {
  const with6 = (plan: Plan, block: string): Plan => ({
    ...plan,
    site: { ...plan.site, blocks: [...plan.site.blocks, net(block)] },
  });

  test("segments with a gateway get a /64 with the VLAN's digits, its first address; no stop comes", () => {
    for (const plan of PLANS) {
      const numbered = donePlan(
        afterEdit(with6(plan, "fd24:5a10:3c01::/48"), (context) => numberAll6(context)),
      );
      const index = PlanIndex.of(numbered);
      for (const segment of numbered.segment.values()) {
        const vid = index.vidOf(segment);
        // A tunnel has no VLAN, and its digits are the first free ones.
        if (segment.tunnel !== null) continue;
        if (segment.gatewayInterface === null) {
          expect(segment.prefixes6).toEqual([]);
          continue;
        }
        expect(segment.prefixes6.map(formatPrefix)).toEqual([`fd24:5a10:3c01:${vid}::/64`]);
        expect(index.gatewayOf(segment)?.addresses6.map(formatAddress)).toEqual([`fd24:5a10:3c01:${vid}::1`]);
        expect(segment.advertise).toBe("slaac");
      }
      const stops = (of: Plan) =>
        listFindings(runChecks(PlanIndex.of(of)))
          .filter((f) => f.severity === "stop")
          .map((f) => f.key);
      expect(stops(numbered)).toEqual(stops(plan));
      expect(afterEdit(numbered, (context) => numberAll6(context))).toBe(
        "Every segment with a gateway has an IPv6 subnet already.",
      );
    }
  });

  test("a delegated /60 has room for sixteen, a /62 for four: the first without is named", () => {
    const plan = fennelStreet();
    expect(typeof afterEdit(with6(plan, "2001:db8:24:100::/60"), (context) => numberAll6(context))).toBe(
      "object",
    );
    expect(afterEdit(with6(plan, "2001:db8:24:100::/62"), (context) => numberAll6(context))).toMatch(
      /^The IPv6 blocks have no \/64 left for Cards/,
    );
    expect(afterEdit(plan, (context) => numberAll6(context))).toMatch(/has no IPv6 block/);
  });
});
