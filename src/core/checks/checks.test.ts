import { readFileSync } from "node:fs";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { parseMac } from "../address";
import { must } from "../kernel";
import { PlanEdits, PlanIndex } from "../plan";
import { testId } from "../testing/build-plan";
import { SLIPS_OF_BASELINE } from "../testing/slips-of-baseline";
import { SLIPS_OF_GUARDS } from "../testing/slips-of-guards";
import { SLIPS_OF_WALLS, type Slip } from "../testing/slips-of-walls";
import { recheck } from "./recheck";
import { CHECKS, listFindings, repairsOf, runChecks, sentenceOf } from "./registry";
import type { Finding } from "./check";
import { apply, find, portOf } from "../testing/slips-at-home";
import { SLIPS_OF_ADDRESSING } from "../testing/slips-of-addressing";
import { SLIPS_OF_SWITCHING } from "../testing/slips-of-switching";
import { SLIPS_OF_GEAR } from "../testing/slips-of-gear";
import { SLIPS_OF_RULES } from "../testing/slips-of-rules";
import { SLIPS_OF_GATEWAY } from "../testing/slips-of-gateway";
import { ip, v } from "../testing/written";

/** The home is sound as it stands; each slip is made in it alone. */
const sound = lockkeepersHouse();

const slips: Slip[] = [
  ...SLIPS_OF_ADDRESSING,
  ...SLIPS_OF_SWITCHING,
  ...SLIPS_OF_GEAR,
  ...SLIPS_OF_RULES,
  ...SLIPS_OF_GATEWAY,
  ...SLIPS_OF_WALLS,
  ...SLIPS_OF_GUARDS,
  ...SLIPS_OF_BASELINE,
];

/** The day for which the slips are judged. */
const TODAY = "2026-11-25";

test("a sound plan has no finding; every check has a slip that it finds", () => {
  expect(listFindings(runChecks(PlanIndex.of(sound, TODAY)))).toEqual([]);
  // The works' ring lacks one VLAN on its spare way, as it was found.
  expect(listFindings(runChecks(PlanIndex.of(bramblewick(), TODAY))).map((finding) => finding.code)).toEqual([
    "vlan-missing-on-spare-way",
    "list-without-memory",
  ]);
  expect([...new Set(slips.map(([code]) => code))].sort()).toEqual(CHECKS.map((check) => check.code).sort());
});

/** A person has to decide: lay another cable, buy another switch, leave a name out. */
const NO_REPAIR = [
  "baseline-beyond-device",
  "gear-server-unreachable",
  "serial-twice",
  "licence-ended",
  "window-without-consent",
  "first-address-met",
  "admin-server-unreachable",
  "wireless-sign-in-unreachable",
  "certificate-ends",
  "guard-beyond-gear",
  "delegated-too-small",
  "calls-do-not-fit",
  "list-without-memory",
  "line-without-name",
  "next-hop-not-reached",
  "line-facts-missing",
  "gateway-does-not-answer",
  "no-cable-between",
  "copper-between-buildings",
  "poe-budget-overrun",
  "poe-one-supply-lost",
  "uplink-oversubscribed",
  "too-many-vlans",
  "too-many-wireless-names",
];

test.each(slips)(
  "%s: found, said with the real values, and each repair mends it without a new stop",
  (code, slip, says) => {
    const edits = new PlanEdits(sound);
    slip(edits);
    const plan = apply(sound, edits);
    const index = PlanIndex.of(plan, TODAY);
    const before = listFindings(runChecks(index));
    const finding = must(
      before.find((f) => f.code === code),
      `${code} among ${before.map((f) => f.code).join(", ")}`,
    );
    expect(sentenceOf(finding, index)).toMatch(says);
    const repairs = repairsOf(finding, index);
    expect(repairs.length > 0).toBe(!NO_REPAIR.includes(code));
    const stops = (list: Finding[]) => new Set(list.filter((f) => f.severity === "stop").map((f) => f.key));
    for (const repair of repairs) {
      let n = 0;
      const edit = new PlanEdits(plan);
      repair.edit(edit, () => testId("new", `${(n += 1)}`));
      const mended = apply(plan, edit);
      const after = listFindings(runChecks(PlanIndex.of(mended, TODAY)));
      expect([repair.label, after.map((f) => f.key)]).not.toEqual([
        repair.label,
        expect.arrayContaining([finding.key]),
      ]);
      // A defined VLAN may still be the wrong one for what is plugged in: only the recommended repair
      // promises no new stop.
      if (repair === repairs[0])
        expect([...stops(after)].filter((key) => !stops(before).has(key))).toEqual(
          code === "port-vlan-undefined" ? expect.any(Array) : [],
        );
    }
  },
);

test("rechecking after an edit gives what checking everything gives", () => {
  const whole = fennelStreet();
  let index = PlanIndex.of(whole);
  let findings = runChecks(index);
  for (const name of ["Camera Entrance", "PC Office 1", "Image store"]) {
    const edits = new PlanEdits(index.plan);
    const host = find(edits, "host", name);
    edits.patch("host", host.id, {
      mac: parseMac("02:5a:10:00:00:01"),
      ipv4: ip("10.24.40.30"),
      manner: "typed",
    });
    edits.patch("port", portOf(edits, "Upper switch", "25").id, { tagged: [10, 20].map(v) });
    const changes = edits.changes();
    index = index.derive(apply(index.plan, edits), changes);
    findings = recheck(findings, index, changes);
    expect(listFindings(findings)).toEqual(listFindings(runChecks(PlanIndex.of(index.plan))));
  }
  expect(listFindings(findings).length).toBeGreaterThan(8);
});

test("docs/findings.md lists exactly these checks", () => {
  const documented = [...readFileSync("docs/findings.md", "utf8").matchAll(/^## `([a-z0-9-]+)`/gm)].map(
    (m) => m[1],
  );
  expect(documented.sort()).toEqual(CHECKS.map((check) => check.code).sort());
});
