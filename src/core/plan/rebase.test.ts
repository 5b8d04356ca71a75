import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { equal, must } from "../kernel";
import { asPrefix4, parseAddress, parsePrefix } from "../address";
import { v } from "../testing/written";
import { applyChanges, invert, type Change } from "./change";
import { diff } from "./diff";
import { PlanEdits } from "./plan-edits";
import { entityFault } from "./schema/faults";
import { KINDS } from "./schema/kinds";
import { rebase, rebaseMine } from "./rebase";
import type { Host, Port } from "./schema/hardware";
import type { Plan } from "./plan";

const plan = fennelStreet();
const ports = [...plan.port.values()].filter((port) => port.tagged.length > 1);
const hosts = [...plan.host.values()];

/**
 * An edit of one field, or of a member list, of one of a few entities, so that two people's edits meet often.
 */
type Edit =
  | {
      readonly on: "host";
      readonly n: number;
      readonly field: "name" | "place" | "notes";
      readonly text: string;
    }
  | { readonly on: "port"; readonly n: number; readonly add: number; readonly drop: number }
  | { readonly on: "gone"; readonly n: number };
const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({
    on: fc.constant("host" as const),
    n: fc.nat(2),
    field: fc.constantFrom("name" as const, "place" as const, "notes" as const),
    text: fc.constantFrom("Mill", "Barn", "Kiln"),
  }),
  fc.record({
    on: fc.constant("port" as const),
    n: fc.nat(2),
    add: fc.constantFrom(501, 502, 503),
    drop: fc.nat(3),
  }),
  fc.record({ on: fc.constant("gone" as const), n: fc.nat(2) }),
);

function changesOf(on: Plan, edits: readonly Edit[]): Change[] {
  const draft = new PlanEdits(on);
  for (const edit of edits) {
    const host = draft.get("host", must(hosts[edit.n], "a host").id);
    const port = draft.get("port", must(ports[edit.n], "a port").id);
    if (edit.on === "host" && host !== undefined) draft.patch("host", host.id, { [edit.field]: edit.text });
    if (edit.on === "port" && port !== undefined)
      draft.patch("port", port.id, {
        tagged: [...port.tagged.filter((_, i) => i !== edit.drop), v(edit.add)].filter(
          (t, i, all) => all.indexOf(t) === i,
        ),
      });
    if (edit.on === "gone" && host !== undefined && edit.n === 2) draft.remove("host", host.id);
  }
  return draft
    .changes()
    .filter(
      (change) =>
        change.after !== null ||
        !hosts.some((h) => h.attachment.at === "behind" && h.attachment.host === change.id),
    );
}
const applied = (on: Plan, changes: readonly Change[]): Plan => {
  const result = applyChanges(on, changes);
  return must(result.ok ? result.value : null, "applies");
};
/** Members as sets: the order in which two people added theirs is nobody's wish. */
const settled = (of: Plan): Plan => ({
  ...of,
  port: new Map(
    [...of.port].map(([id, port]) => [id, { ...port, tagged: [...port.tagged].sort((a, b) => a - b) }]),
  ),
});

test("whoever comes second, two people's changes give one plan, or a clash that is one both ways", () => {
  let [merged, clashed] = [0, 0];
  fc.assert(
    fc.property(
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      (a, b) => {
        const [mine, theirs] = [changesOf(plan, a), changesOf(plan, b)];
        const [onTheirs, onMine] = [rebase(applied(plan, theirs), mine), rebase(applied(plan, mine), theirs)];
        expect(onTheirs.ok).toBe(onMine.ok);
        if (!onTheirs.ok || !onMine.ok) {
          clashed += 1;
          return;
        }
        const [first, second] = [
          applied(applied(plan, theirs), onTheirs.value),
          applied(applied(plan, mine), onMine.value),
        ];
        expect(diff(settled(first), settled(second))).toEqual([]);
        merged += 1;
      },
    ),
    { numRuns: 400, seed: 52 },
  );
  expect(Math.min(merged, clashed)).toBeGreaterThan(10);
});

test("what nobody else touched is as I wanted it; what I did not touch is as they left it", () => {
  fc.assert(
    fc.property(
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      (a, b) => {
        const [mine, theirs] = [changesOf(plan, a), changesOf(plan, b)];
        const now = applied(plan, theirs);
        const rebased = rebase(now, mine);
        if (!rebased.ok) return;
        const after = applied(now, rebased.value);
        const touched = (changes: readonly Change[]) => new Set(changes.map((change) => change.id));
        for (const change of mine)
          if (!touched(theirs).has(change.id))
            expect(after[change.kind as "host"].get(change.id) ?? null).toEqual(change.after);
        for (const change of theirs)
          if (!touched(mine).has(change.id))
            expect(after[change.kind as "host"].get(change.id) ?? null).toEqual(change.after);
      },
    ),
    { numRuns: 200, seed: 53 },
  );
});

test("insisting gives what can be applied, with my fields as I set them, my part of a set", () => {
  fc.assert(
    fc.property(
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      (a, b) => {
        const [mine, theirs] = [changesOf(plan, a), changesOf(plan, b)];
        const now = applied(plan, theirs);
        const after = applied(now, rebaseMine(now, mine));
        for (const change of mine) {
          const is = after[change.kind as "host"].get(change.id) as Host | Port | undefined;
          if (change.after === null) expect(is).toBeUndefined();
          else if (change.before !== null) {
            const fields = (entity: unknown) => entity as Record<string, unknown>;
            for (const [field, value] of Object.entries(change.after)) {
              const was = fields(change.before)[field];
              if (equal(value, was)) continue;
              if (field !== "tagged") expect(fields(is)[field]).toEqual(value);
              else {
                const [before, after, now] = [was, value, fields(is)[field]] as number[][];
                expect(now).toEqual(
                  expect.arrayContaining(must(after, "mine").filter((vid) => !before?.includes(vid))),
                );
                expect(before?.filter((vid) => !after?.includes(vid) && now?.includes(vid))).toEqual([]);
              }
            }
          }
        }
      },
    ),
    { numRuns: 200, seed: 54 },
  );
});

test("an entity that breaks the schema has a sentence that names the field", () => {
  const host = must(hosts[0], "a host");
  expect(entityFault("host", host)).toBeNull();
  expect(entityFault("host", { ...host, name: "two\nlines" })).toMatch(
    /^name: A name can't hold line breaks/,
  );
  expect(entityFault("host", { ...host, place: "x".repeat(200) })).toMatch(/^place: At most 120 characters/);
  expect(entityFault("vlan", { ...must([...plan.vlan.values()][0], "a VLAN"), vid: 5000 as never })).toMatch(
    /^vid: .*1 to 4094/,
  );
});

describe("what two people did to one list", () => {
  const segment = must(
    [...plan.segment.values()].find((s) => s.prefixes4.length === 1),
    "a segment",
  );
  const scope = must(
    [...plan.scope.values()].find((s) => s.pools.length === 1 && typeof s.pools[0]?.first === "number"),
    "a scope",
  );
  const leg = must(
    [...plan.interface.values()].find((i) => i.addresses4.length === 1),
    "a leg",
  );
  const port = must(ports[0], "a trunk");
  const at = (text: string) => must(parseAddress(text), text);
  const net = (text: string) => must(asPrefix4(parsePrefix(text)), text);
  type Field = readonly [
    kind: "segment" | "scope" | "interface" | "port" | "device",
    id: string,
    fields: object,
  ];
  const both = (mine: Field, theirs: Field) => {
    const edit = ([kind, id, fields]: Field) => {
      const edits = new PlanEdits(plan);
      edits.patch(kind, id, fields);
      return edits.changes();
    };
    return rebase(applied(plan, edit(theirs)), edit(mine));
  };
  const pool = (first: string, last: string) => ({ first: at(first), last: at(last) });

  test.each<[string, Field, Field, string[]]>([
    [
      "a pool",
      ["scope", scope.id, { pools: [pool("10.24.20.40", "10.24.20.60")] }],
      ["scope", scope.id, { pools: [pool("10.24.20.40", "10.24.20.70")] }],
      ["pools"],
    ],
    [
      "name servers",
      ["segment", segment.id, { dns: [at("192.0.2.1")] }],
      ["segment", segment.id, { dns: [at("192.0.2.2")] }],
      ["dns"],
    ],
    [
      "a subnet",
      ["segment", segment.id, { prefixes4: [net("10.24.88.0/24")] }],
      ["segment", segment.id, { prefixes4: [net("10.24.89.0/24")] }],
      ["prefixes4"],
    ],
    [
      "a second address of a leg",
      ["interface", leg.id, { addresses4: [...leg.addresses4, at("10.24.1.8")] }],
      ["interface", leg.id, { addresses4: [...leg.addresses4, at("10.24.1.9")] }],
      ["addresses4"],
    ],
    [
      "the first subnet, taken away and replaced",
      ["segment", segment.id, { prefixes4: [] }],
      ["segment", segment.id, { prefixes4: [net("10.24.89.0/24")] }],
      ["prefixes4"],
    ],
  ])("%s: the same element clashes", (_, mine, theirs, fields) => {
    const rebased = both(mine, theirs);
    expect(rebased.ok ? "merged" : rebased.error.map((clash) => clash.field)).toEqual(fields);
  });
  test("different elements both stand, a set takes in both, an access port's VLAN is one question", () => {
    const two = [...leg.addresses4, at("10.24.1.8")];
    const first = both(
      ["interface", leg.id, { addresses4: [at("10.24.1.7")] }],
      ["interface", leg.id, { addresses4: two }],
    );
    expect(first).toMatchObject({
      ok: true,
      value: [{ after: { addresses4: [at("10.24.1.7"), at("10.24.1.8")] } }],
    });
    const sets = both(
      ["port", port.id, { tagged: [...port.tagged, v(501)] }],
      ["port", port.id, { tagged: [...port.tagged.slice(1), v(502)] }],
    );
    expect(sets).toMatchObject({
      ok: true,
      value: [{ after: { tagged: [...port.tagged.slice(1), v(502), v(501)] } }],
    });
    const access = both(
      ["port", port.id, { pvid: v(501), untagged: [v(501)] }],
      ["port", port.id, { pvid: v(502), untagged: [v(502)] }],
    );
    expect(access.ok ? "merged" : access.error.map((clash) => clash.field)).toEqual(["pvid", "untagged"]);
  });
  test("settings of one group merge one by one: edge here, trust there", () => {
    const guards = both(
      ["port", port.id, { guards: { ...port.guards, edge: !port.guards.edge } }],
      ["port", port.id, { guards: { ...port.guards, dhcpTrust: !port.guards.dhcpTrust } }],
    );
    expect(guards).toMatchObject({
      ok: true,
      value: [{ after: { guards: { edge: !port.guards.edge, dhcpTrust: !port.guards.dhcpTrust } } }],
    });
  });
  test("undo of a renumbered subnet that was renumbered since clashes and adds no old one", () => {
    const to = (on: Plan, text: string) => {
      const edits = new PlanEdits(on);
      edits.patch("segment", segment.id, { prefixes4: [net(text)] });
      return edits.changes();
    };
    const mine = to(plan, "10.24.88.0/24");
    const between = applied(plan, mine);
    expect(rebase(applied(between, to(between, "10.24.89.0/24")), invert(mine))).toMatchObject({
      ok: false,
      error: [{ field: "prefixes4" }],
    });
  });
  test("each field is chosen apart", () => {
    const edits = new PlanEdits(plan);
    edits.patch("segment", segment.id, { name: "Mine", domainName: "mine.example" });
    const other = new PlanEdits(plan);
    other.patch("segment", segment.id, { name: "Theirs", domainName: "theirs.example" });
    const now = applied(plan, other.changes());
    const chosen = rebase(now, edits.changes(), ({ field }) => (field === "name" ? "mine" : "theirs"));
    expect(chosen).toMatchObject({
      ok: true,
      value: [{ after: { name: "Mine", domainName: "theirs.example" } }],
    });
  });
});

/** Another value of the same schema, for any field of any kind; null where this makes none. */
const other = (value: unknown, n: number): unknown => {
  if (typeof value === "boolean") return !value;
  if (typeof value === "string" && !/^[0-9a-f]{8}-/.test(value)) return `${value}${n}`;
  if (typeof value === "number") return value + n;
  return null;
};

test("fields of one value: two wishes for one clash, wishes for two stand side by side", () => {
  let tried = 0;
  for (const kind of KINDS) {
    const entity = kind === "site" ? plan.site : [...plan[kind].values()][0];
    if (entity === undefined) continue;
    for (const [field, value] of Object.entries(entity)) {
      const [one, two] = [other(value, 1), other(value, 2)];
      if (field === "id" || one === null || two === null || typeof value === "boolean") continue;
      const change = (to: unknown): Change =>
        ({ kind, id: entity.id, before: entity, after: { ...entity, [field]: to } }) as Change;
      const now = {
        ...plan,
        ...(kind === "site"
          ? { site: { ...plan.site, [field]: two } }
          : { [kind]: new Map([[entity.id, { ...entity, [field]: two }]]) }),
      } as Plan;
      const rebased = rebase(now, [change(one)]);
      expect([kind, field, rebased.ok ? "merged" : rebased.error.map((clash) => clash.field)]).toEqual([
        kind,
        field,
        [field],
      ]);
      expect(rebase(now, [change(one)], () => "theirs")).toEqual({ ok: true, value: [] });
      tried += 1;
    }
  }
  expect(tried).toBeGreaterThan(80);
});
