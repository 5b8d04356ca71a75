import { fennelStreet } from "../../../demo/fennel-street";
import { testSheet, type SiteTest } from "../commissioning";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex } from "../plan";
import { aTestTaken } from "../testing/a-tick";
import { testId } from "../testing/build-plan";
import type { Recorded } from "./entry";
import { isToTake, proofOf } from "./proof";
import { takenTest } from "./tests-taken";

const index = PlanIndex.of(fennelStreet());
const sheet = testSheet(index);

const reading = (of: PlanIndex, test: SiteTest, at: number): Recorded => ({
  by: "Ruth",
  entry: aTestTaken({ id: testId("taken", `${at} ${test.id}`), test: takenTest(of, test) }),
});
const record = sheet.tests.map((test, at) => reading(index, test, at));
const states = (facts: ReturnType<typeof proofOf>["facts"], state: string) =>
  facts.filter((factStanding) => factStanding.state === state).map(({ fact }) => fact.id);

/** The site with one VLAN more on a cable between two switches, and as its sheet asks then. */
function withVlanMore(): PlanIndex {
  const edits = new PlanEdits(index.plan);
  const link = must(
    [...index.plan.link.values()].find(({ a, b }) =>
      [a, b].every((id) => (index.plan.port.get(id)?.tagged.length ?? 0) > 1),
    ),
    "a trunk",
  );
  const ends = [link.a, link.b].map((id) => must(index.plan.port.get(id), "an end"));
  const vlan = must(
    [...index.plan.vlan.values()].find(({ vid }) =>
      ends.every(({ tagged, untagged }) => ![...tagged, ...untagged].includes(vid)),
    ),
    "a VLAN that is not there",
  );
  for (const { id, tagged } of ends) edits.patch("port", id, { tagged: [...tagged, vlan.vid] });
  return must(afterEdits(index, edits), "a plan");
}

test("when everything was read as expected, everything that a reading proves is proven", () => {
  const { tests, facts } = proofOf(index, sheet, record);
  expect(tests.filter(({ state }) => isToTake(state))).toEqual([]);
  expect(states(facts, "open")).toEqual([]);
  expect(states(facts, "proven").length).toBe(sheet.facts.length - sheet.unproven.length);
});

test("after a change only what it touched is to be read again, and that is enough", () => {
  const changed = withVlanMore();
  const now = testSheet(changed);
  const later = now.facts.map(({ id }) => id).filter((id) => !sheet.facts.some((fact) => fact.id === id));
  expect(later.length).toBeGreaterThan(0);
  const before = proofOf(changed, now, record);
  const toTake = before.tests.filter(({ state }) => isToTake(state));
  expect(toTake.length).toBeGreaterThan(0);
  expect(toTake.length).toBeLessThan(sheet.tests.length / 4);
  for (const id of later) expect([id, states(before.facts, "proven").includes(id)]).toEqual([id, false]);
  const after = proofOf(changed, now, [
    ...record,
    ...toTake.map(({ test }, at) => reading(changed, test, 10_000 + at)),
  ]);
  expect(states(after.facts, "open")).toEqual([]);
  expect(after.tests.filter(({ state }) => isToTake(state))).toEqual([]);
});

test("a fact that a reading did not claim when it was taken is not proven by it", () => {
  const test = must(
    sheet.tests.find(({ expected, proves }) => expected.is === "lease" && proves.length > 1),
    "a reading",
  );
  const [fact = ""] = test.proves;
  const without = record.map(({ by, entry }): Recorded =>
    entry.do !== "test"
      ? { by, entry }
      : {
          by,
          entry: {
            ...entry,
            test: { ...entry.test, proves: entry.test.proves?.filter((id) => id !== fact) ?? null },
          },
        },
  );
  const { tests, facts } = proofOf(index, sheet, without);
  expect(states(facts, "open")).toEqual([fact]);
  // One reading more is enough, however many claim it.
  expect(tests.filter(({ state }) => state === "anew")).toHaveLength(1);
});

test("a lease that names another name server is to be read again; older ones said less of it", () => {
  const at = sheet.tests.findIndex(({ expected }) => expected.is === "lease" && expected.dns.length > 0);
  const test = must(sheet.tests[at], "a lease");
  const edits = new PlanEdits(index.plan);
  const segment = test.expected.is === "lease" ? (test.expected.segment ?? "") : "";
  edits.patch("segment", segment, { dns: [] });
  const changed = must(afterEdits(index, edits), "a plan");
  const now = testSheet(changed);
  const stateWith = (taken: Recorded) =>
    proofOf(changed, now, [taken]).tests.find((testStanding) => testStanding.test.id === test.id)?.state;
  expect(stateWith(reading(index, test, 1))).toBe("anew");
  const { expected, ...rest } = takenTest(index, test);
  const [address = ""] = expected.split("\n");
  const older = aTestTaken({ test: { ...rest, expected: address, proves: null } });
  expect(stateWith({ by: "Ruth", entry: older })).toBe("expected");
});
