import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { planOf, siteCases } from "../../../tests/support/site-cases";
import { must } from "../kernel";
import { COLLECTION_KINDS, PlanIndex, type Plan } from "../plan";
import { asClient, probe } from "../probe";
import { afterEdit, donePlan } from "../testing/after-edit";
import { plant } from "../testing/faults";
import { dice } from "../testing/plants";
import { listFindings, repairsOf, runChecks, sentenceOf } from "./registry";

// Rows come in the order in which people added them, and that means nothing: whatever is asked, the answer is
// the same.

/** The same plan with all of its rows in another order. */
function shuffled(plan: Plan, roll: (n: number) => number): Plan {
  const mixed = COLLECTION_KINDS.map((kind) => {
    const rows: [string, unknown][] = [...plan[kind]];
    for (let i = rows.length - 1; i > 0; i -= 1) {
      const j = roll(i + 1);
      [rows[i], rows[j]] = [must(rows[j], "a row"), must(rows[i], "a row")];
    }
    return [kind, new Map(rows)] as const;
  });
  return { ...plan, ...Object.fromEntries(mixed) } as Plan;
}

const ids = () => "00000000-0000-7000-8000-000000000000";
function said(plan: Plan): string[] {
  const index = PlanIndex.of(plan, "2026-11-27");
  const findings = listFindings(runChecks(index)).map(
    (finding) =>
      `${finding.severity} ${finding.code}: ${sentenceOf(finding, index)} | ${repairsOf(finding, index)
        .map(({ label }) => label)
        .join("; ")}`,
  );
  const hosts = [...plan.host.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  const probes = hosts.flatMap((host) =>
    [{ to: "address" as const }, { to: "internet" as const, service: null }].map((goal) => {
      const { cause, lease, steps } = probe(index, asClient({ at: "host", host: host.id }, goal), ids);
      return (
        `${host.name} ${goal.to}: ${String(lease?.address)} ` +
        `${steps.map((step) => `${step.title} ${step.says}`).join(", ")} ` +
        `${cause?.sentence ?? "passes"} | ${cause?.repairs.map(({ label }) => label).join("; ") ?? ""}`
      );
    }),
  );
  return [...findings.sort(), ...probes];
}

/** Sites with single faults in them, and an office that has two of what there should be one of. */
function planted(): (readonly [string, Plan])[] {
  const faulty = Array.from({ length: 18 }, (_, n) => {
    const fault = plant(
      must([fennelStreet(), lockkeepersHouse(), bramblewick()][n % 3], "a site"),
      dice(900 + n),
    );
    return fault === null ? [] : [[`${fault.kind} ${n}`, fault.plan] as const];
  }).flat();
  const twice = donePlan(
    afterEdit(fennelStreet(), ({ edits, ids: next }) => {
      const gear = edits.all("device").filter((device) => device.kind === "switch");
      for (const [i, scope] of edits.all("scope").entries()) {
        const half = scope.pools.map(({ first }) => ({ first, last: first }));
        edits.patch("segment", scope.segment, {
          planned: 90,
          visit: { perHour: 40 + i, staySeconds: 600, openSeconds: 36_000 },
        });
        edits.put("scope", {
          ...scope,
          id: next(),
          pools: half,
          leaseSeconds: 7200,
          serverDevice: gear[i % gear.length]?.id ?? null,
          serverHost: null,
        });
      }
      for (const device of gear)
        edits.patch("device", device.id, {
          abilities: { ...device.abilities, routes: true },
          defaultRoute: "none",
        });
    }),
  );
  return [...faulty, ["two of everything", twice]];
}

const CASES = siteCases();
const PLANS: readonly (readonly [string, Plan])[] = [
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["plant", bramblewick()],
  ...planted(),
  ...CASES.filter(({ group }) => ["drafted", "second-server", "dhcp", "duplicate", "random"].includes(group))
    .slice(0, 14)
    .map((siteCase) => [siteCase.name, planOf(siteCase)] as const),
];

test.each(PLANS)(
  "%s: findings, repairs and probes are the same whatever order the rows are in",
  (_, plan) => {
    const expected = said(plan);
    expect(expected.length).toBeGreaterThan(10);
    fc.assert(
      fc.property(fc.infiniteStream(fc.nat(1_000_000)), (numbers) => {
        expect(said(shuffled(plan, (n) => must(numbers.next().value, "a number") % n))).toEqual(expected);
      }),
      { numRuns: 2, seed: 4, endOnFailure: true },
    );
  },
);
