import fc from "fast-check";
import { fennelStreet } from "../../../../demo/fennel-street";
import { parsePrefix } from "../../address";
import { must } from "../../kernel";
import { BLANK_RULE, MOST_RULES, PlanIndex, type Plan, type RuleSide, type Service } from "../../plan";
import { SERVICES } from "../../policy";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { testId } from "../../testing/build-plan";
import { STANDING_PROOFS } from "../../walls";
import { removeSegment } from "../site/remove";
import { RULE_COLUMNS, readRuleCell, ruleCellText } from "./rule-cell";
import { adoptPlanned } from "./adopt-list";
import { ruleServices } from "./mend-pair";
import { addRule, moveRule, putOnTop, readRuleTable, replaceRules, setFilter } from "./rule-list";
import { readServices, servicesText } from "./service-list-text";
import { readSides, sidesText } from "./side-text";
import { bringToNeeded, wayToNeeded } from "./to-needed";

const office = fennelStreet();
const index = PlanIndex.of(office);
const device = must(
  [...office.device.values()].find(({ kind }) => kind === "gateway"),
  "the gateway",
).id;
const notesOn = (plan: Plan) =>
  PlanIndex.of(plan)
    .rulesOf(device)
    .map(({ note }) => note);
const listed = (plan: Plan, notes: readonly string[]) =>
  donePlan(
    afterEdit(plan, (context) =>
      replaceRules(context, { device, rules: notes.map((note) => ({ ...BLANK_RULE, note })) }),
    ),
  );

describe("ends of rules as text", () => {
  const side: fc.Arbitrary<RuleSide> = fc.oneof(
    fc.constantFrom(...office.zone.keys()).map((zone): RuleSide => ({ at: "zone", zone })),
    fc.constantFrom(...office.segment.keys()).map((segment): RuleSide => ({ at: "segment", segment })),
    fc.constantFrom(...office.host.keys()).map((host): RuleSide => ({ at: "host", host })),
    fc
      .constantFrom("10.24.20.0/24", "10.24.20.9/32", "2001:db8::/32", "2001:db8::9/128", "0.0.0.0/0")
      .map((text): RuleSide => ({ at: "prefix", prefix: must(parsePrefix(text), text) })),
    fc.constantFrom<RuleSide>({ at: "internet" }, { at: "gateway" }),
  );
  /** A zone and its only segment of one name are the same thing: either is read for the other. */
  const meaning = (sides: readonly RuleSide[]) =>
    sides.map((side) => {
      if (side.at !== "segment") return side;
      const segment = must(office.segment.get(side.segment), "it");
      const zone = must(office.zone.get(segment.zone), "its zone");
      const own = [...office.segment.values()].filter((other) => other.zone === zone.id);
      return own.length === 1 && zone.name === segment.name ? { at: "zone", zone: zone.id } : side;
    });

  test("what is written is read as it was meant", () => {
    fc.assert(
      fc.property(fc.array(side, { maxLength: 6 }), (sides) => {
        const read = readSides(index, sidesText(index, sides));
        expect(typeof read === "string" ? read : meaning(read)).toEqual(meaning(sides));
      }),
      { seed: 31, numRuns: 300 },
    );
  });

  test("a name with a comma stands in quotation marks", () => {
    const [zone] = office.zone.values();
    const plan = donePlan(
      afterEdit(office, ({ edits }) =>
        edits.patch("zone", must(zone, "a zone").id, { name: "Desks, front" }),
      ),
    );
    const own = PlanIndex.of(plan);
    const sides: RuleSide[] = [{ at: "zone", zone: must(zone, "").id }, { at: "internet" }];
    expect(sidesText(own, sides)).toBe('"Desks, front", Internet');
    expect(readSides(own, '"Desks, front", Internet')).toEqual(sides);
  });

  test.each([
    ["any", []],
    ["", []],
    [" * ", []],
    ["internet", [{ at: "internet" }]],
    ["The Gateway", [{ at: "gateway" }]],
    ["router", [{ at: "gateway" }]],
  ])("%j is read", (text, sides) => {
    expect(readSides(index, text)).toEqual(sides);
  });

  test.each([
    ["Labb", /no zone, segment or device called "Labb"/],
    ["zone Labb", /called "zone Labb"/],
    ["Building", /"Building" is a zone and a segment; write "zone Building" or "segment Building"/],
    ["10.24.20.9/24", /no subnet: write its first address/],
    ["any, Kit", /"any" can't stand beside others/],
    [Array.from({ length: 65 }, () => "Kit").join(","), /65 are too many for one end/],
    ['=HYPERLINK("x")', /called "=HYPERLINK\("/],
  ])("%j is refused", (text, why) => {
    expect(readSides(index, text)).toMatch(why);
  });
});

describe("services as text", () => {
  const service: fc.Arbitrary<Service> = fc.oneof(
    fc.constantFrom(...SERVICES),
    fc
      .tuple(
        fc.constantFrom("tcp" as const, "udp" as const),
        fc.integer({ min: 1, max: 65_000 }),
        fc.nat(500),
      )
      .map(([protocol, low, more]): Service => ({
        name: `${protocol} ${low}${more === 0 ? "" : `-${low + more}`}`,
        protocol,
        ports: [[low, low + more]],
      })),
  );
  test("what is written is read as it was meant", () => {
    fc.assert(
      fc.property(fc.array(service, { maxLength: 5 }), (services) => {
        const read = readServices(index, servicesText(index, services));
        const told = typeof read === "string" ? [] : read;
        // A name stands for all of its protocols; nothing else is more or less.
        const has = (list: readonly Service[], service: Service) =>
          list.some(
            ({ protocol, ports }) =>
              JSON.stringify([protocol, ports]) === JSON.stringify([service.protocol, service.ports]),
          );
        expect(typeof read).not.toBe("string");
        for (const service of services) expect(has(told, service)).toBe(true);
        for (const service of told)
          expect(has(services, service) || services.some(({ name }) => name === service.name)).toBe(true);
      }),
      { seed: 32, numRuns: 300 },
    );
  });

  test.each([
    ["any", "any"],
    ["443/tcp", "tcp 443"],
    ["tcp/443, 8443", "tcp 443, tcp 8443"],
    ["TCP:22", "tcp 22"],
    ["https; dns", "https, dns"],
    ["backup tcp 8007", "backup tcp 8007"],
    ["icmp", "icmp"],
    ["udp 5000-5100", "udp 5000-5100"],
  ])("%j is read as %j", (text, as) => {
    const read = readServices(index, text);
    expect(typeof read === "string" ? read : servicesText(index, read)).toBe(as);
  });

  test.each([
    ["quick", /"quick" is not a service/],
    ["tcp 70000", /"tcp 70000" is not a service/],
    ["443", /"443" is not a service/],
    [Array.from({ length: 33 }, (_, at) => `tcp ${at + 1}`).join(","), /33 services are too many/],
  ])("%j is refused", (text, why) => {
    expect(readServices(index, text)).toMatch(why);
  });
});

describe("a rule's cells", () => {
  test("every cell of every rule of the practice says what is read back from it", () => {
    for (const rule of index.rulesOf(device))
      for (const [column] of RULE_COLUMNS) {
        const text = ruleCellText(index, rule, column);
        const fields = readRuleCell(index, column, text);
        expect(
          typeof fields === "string" ? fields : ruleCellText(index, { ...rule, ...fields }, column),
        ).toBe(text);
      }
  });
  test.each([
    ["from", "Gateway", /Nothing that the gateway itself starts/],
    ["action", "perhaps", /"perhaps" is no action: write accept, drop or reject/],
    ["note", "x".repeat(121), /at most 120 characters/],
  ] as const)("%s %j is refused", (column, text, why) => {
    expect(readRuleCell(index, column, text)).toMatch(why);
  });
});

describe("the order of a list", () => {
  test("rules put before others, moved and put on top stand where they were put, however often", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom("add", "move", "top"), fc.nat(30), fc.nat(30)), { maxLength: 25 }),
        (steps) => {
          let plan = listed(office, ["a", "b", "c"]);
          let wanted = ["a", "b", "c"];
          steps.forEach(([what, a, b], step) => {
            const own = PlanIndex.of(plan).rulesOf(device);
            const at = a % (wanted.length + (what === "move" ? 0 : 1));
            if (what === "add") {
              const fields = { note: `${step}` };
              plan = donePlan(
                afterEdit(plan, (context) =>
                  addRule(context, { device, before: own[at]?.id ?? null, fields }),
                ),
              );
              wanted = [...wanted.slice(0, at), `${step}`, ...wanted.slice(at)];
            } else if (what === "top") {
              const rules = [{ note: `${step} one` }, { note: `${step} two` }];
              plan = donePlan(afterEdit(plan, (context) => putOnTop(context, { device, rules })));
              wanted = [`${step} one`, `${step} two`, ...wanted];
            } else {
              const to = (b % wanted.length) + 1;
              const moved = must(wanted[at], "a rule");
              plan = donePlan(
                afterEdit(plan, (context) => moveRule(context, { rule: must(own[at], "").id, to })),
              );
              const others = wanted.filter((_, other) => other !== at);
              wanted = [...others.slice(0, to - 1), moved, ...others.slice(to - 1)];
            }
            expect(notesOn(plan)).toEqual(wanted);
          });
        },
      ),
      { seed: 33, numRuns: 40 },
    );
  });

  test("numbers that the list does not have, and rules that are gone, are refused", () => {
    const plan = listed(office, ["a", "b"]);
    const [first] = PlanIndex.of(plan).rulesOf(device);
    for (const to of [0, 3, 1.5])
      expect(afterEdit(plan, (context) => moveRule(context, { rule: must(first, "").id, to }))).toBe(
        "The list has the numbers 1 to 2.",
      );
    const gone = testId("rule", "gone");
    expect(afterEdit(plan, (context) => moveRule(context, { rule: gone, to: 1 }))).toBe("That rule is gone.");
    expect(afterEdit(plan, (context) => addRule(context, { device, before: gone, fields: {} }))).toMatch(
      /is gone/,
    );
  });

  test("a list of more rules than there may be is refused, and changes nothing", () => {
    const rows = Array.from({ length: MOST_RULES + 1 }, () => ["any", "any", "any", "drop"]);
    expect(readRuleTable(index, rows)).toBe("A list has at most 10,000 rules; this would be 10,001.");
    const rules = rows.map(() => BLANK_RULE);
    expect(afterEdit(office, (context) => replaceRules(context, { device, rules }))).toMatch(
      /at most 10,000/,
    );
  });
});

describe("a table of rules", () => {
  test("heads say which column is which, in any order; lines that can't be read are told by number", () => {
    const read = readRuleTable(index, [
      ["No.", "Action", "Destination", "Source", "Ports", "Enabled", "Log", "Comment"],
      ["1", "deny", "Internet", "Visitors", "tcp 25", "no", "yes", "no mail"],
      ["", "", "", "", "", "", "", ""],
      ["2", "allow", "Servers", "Nobody", "https", "yes", "", ""],
    ]);
    expect(read).toMatchObject({
      rules: [{ action: "drop", to: [{ at: "internet" }], enabled: false, log: true, note: "no mail" }],
      faults: [expect.stringMatching(/^Line 2, from: There is no zone, segment or device called "Nobody"/)],
    });
    expect(readRuleTable(index, [])).toMatch(/no rule in it/);
    expect(readRuleTable(index, [["From", "To", "Services"]])).toMatch(/no rule in it/);
  });
});

test("a segment that goes takes rules that named nothing else; what named more keeps the rest", () => {
  const segment = must(
    [...office.segment.values()].find(({ name }) => name === "Staff"),
    "Staff",
  );
  const other = must(
    [...office.segment.values()].find(({ name }) => name === "Phones"),
    "Phones",
  );
  const rules = [
    {
      ...BLANK_RULE,
      note: "both",
      from: [segment, other].map(({ id }) => ({ at: "segment" as const, segment: id })),
    },
    { ...BLANK_RULE, note: "only", to: [{ at: "segment" as const, segment: segment.id }] },
    { ...BLANK_RULE, note: "any" },
  ];
  const plan = donePlan(afterEdit(office, (context) => replaceRules(context, { device, rules })));
  const left = donePlan(afterEdit(plan, ({ edits }) => removeSegment(edits, segment.id)));
  const kept = PlanIndex.of(left).rulesOf(device);
  expect(kept.map(({ note, from, to }) => [note, from.length, to.length])).toEqual([
    ["both", 1, 0],
    ["any", 0, 0],
  ]);
});

describe("from the list that stands to the one that the walls need", () => {
  const wayOf = (plan: Plan) => {
    const now = PlanIndex.of(plan);
    return must(wayToNeeded(now, must(now.plan.device.get(device), "it")), "a way");
  };
  const differing = (plan: Plan) =>
    must(PlanIndex.of(plan).derived(STANDING_PROOFS).get(device), "a proof").pairs.filter(
      ({ difference }) => difference !== null,
    );

  test("its steps, done in order, leave nothing to do and a proven list; what is off stays off", () => {
    const off = must(PlanIndex.of(office).rulesOf(device)[3], "a rule").id;
    const plan = donePlan(
      afterEdit(office, ({ edits }) => void edits.patch("rule", off, { enabled: false })),
    );
    const way = wayOf(plan);
    expect(way.steps.length).toBeGreaterThan(5);
    const done = donePlan(afterEdit(plan, (context) => bringToNeeded(context, device)));
    expect(differing(plan)).not.toEqual([]);
    expect(differing(done)).toEqual([]);
    expect(wayOf(done)).toMatchObject({ steps: [], setsDefaults: false });
    expect(done.rule.get(off)?.enabled).toBe(false);
    const inserted = way.steps.filter(({ step }) => step.do === "insert").length;
    const deleted = way.steps.filter(({ step }) => step.do === "delete").length;
    expect(done.rule.size).toBe(plan.rule.size + inserted - deleted);
  });

  test("a rule out of place is moved and keeps its note; other words for it are no difference", () => {
    const needed = donePlan(afterEdit(office, (context) => adoptPlanned(context, device)));
    const [first, second] = PlanIndex.of(needed).rulesOf(device);
    const moved = donePlan(
      afterEdit(needed, (context) => {
        context.edits.patch("rule", must(first, "one").id, { note: "mind this one" });
        return moveRule(context, { rule: must(first, "one").id, to: 5 });
      }),
    );
    expect(wayOf(moved).steps.map(({ step, rule }) => [step, rule.note])).toEqual([
      [{ do: "move", at: 5, to: 1 }, "mind this one"],
    ]);
    const back = donePlan(afterEdit(moved, (context) => bringToNeeded(context, device)));
    expect(PlanIndex.of(back).rulesOf(device)[0]).toMatchObject({ id: first?.id, note: "mind this one" });
    const words = donePlan(
      afterEdit(needed, ({ edits }) => {
        const rule = must(second, "another");
        edits.patch("rule", rule.id, {
          from: rule.from.flatMap((side) =>
            side.at === "zone"
              ? [...office.segment.values()]
                  .filter(({ zone }) => zone === side.zone)
                  .map(({ id }) => ({ at: "segment" as const, segment: id }))
              : [side],
          ),
          services: [...rule.services].reverse(),
        });
      }),
    );
    expect(wayOf(words).steps).toEqual([]);
  });

  test("what no rule takes counts, too, and a device that filters nothing has no way", () => {
    const needed = donePlan(afterEdit(office, (context) => adoptPlanned(context, device)));
    const open = donePlan(
      afterEdit(needed, (context) => setFilter(context, device, { forwardDefault: "accept" })),
    );
    expect(wayOf(open)).toMatchObject({ steps: [], setsDefaults: true });
    const other = must(
      [...office.device.values()].find(({ kind }) => kind === "switch"),
      "a switch",
    );
    expect(wayToNeeded(PlanIndex.of(office), other)).toBeNull();
    expect(afterEdit(office, (context) => bringToNeeded(context, other.id))).toMatch(/filters nothing/);
  });
});

test("services have the catalogue's name where ports are just these; many ranges are several", () => {
  const named = (...ranges: [number, number][]) =>
    ruleServices(
      ranges.map(([first, last]) => ({ first, last })),
      SERVICES,
    ).map(({ name, ports }) => [name, ports.length]);
  expect(named([443, 443])).toEqual([["https", 1]]);
  expect(named([22, 22], [443, 443], [7000, 7010])).toEqual([
    ["ssh", 1],
    ["https", 1],
    ["tcp 7000", 1],
  ]);
  const many = Array.from({ length: 40 }, (_, at): [number, number] => [20_000 + at * 10, 20_000 + at * 10]);
  expect(named(...many)).toEqual([
    ["tcp 20000", 16],
    ["tcp 20160", 16],
    ["tcp 20320", 8],
  ]);
});
