import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { testSheet } from "../commissioning";
import { listFindings, runChecks } from "../checks";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { aTestTaken } from "../testing/a-tick";
import { testId } from "../testing/build-plan";
import { criteriaOf, criteriaTable } from "./criteria";
import type { Recorded, RecordEntry } from "./entry";
import { proofOf } from "./proof";
import { readingsOf } from "./readings";
import { takenTest } from "./tests-taken";

const index = PlanIndex.of(lockkeepersHouse());
const sheet = testSheet(index);
const by = (entry: RecordEntry): Recorded => ({ by: "Ruth", entry });
const AT = "2026-11-29T09:00:00.000Z";

function judge(record: readonly Recorded[], findings = listFindings(runChecks(index))) {
  const proof = proofOf(index, sheet, record);
  return criteriaOf({ findings, proof, record, readings: readingsOf(index, sheet, record) });
}
const taken = (came: "expected" | "otherwise", id: string): Recorded => {
  const test = must(
    sheet.tests.find((siteTest) => siteTest.id === id),
    "a test",
  );
  return by(
    aTestTaken({
      id: testId("taken", id),
      at: AT,
      test: takenTest(index, test),
      came,
      read: came === "expected" ? "" : "none",
    }),
  );
};

test("nothing is met by itself but a plan without anything that stops it", () => {
  const stop = must(listFindings(runChecks(PlanIndex.of(fennelStreet())))[0], "a finding");
  expect(judge([], [])[0]).toMatchObject({ state: "met", says: "no finding that stops it" });
  expect(judge([], [{ ...stop, severity: "stop" }])[0]).toMatchObject({
    state: "failed",
    says: "1 finding stops it",
  });
  const [, work, ...rest] = judge([], []);
  expect(work).toMatchObject({ state: "open", says: "no visit is in the record" });
  const facts = rest.slice(0, -1);
  expect(facts.length).toBeGreaterThan(4);
  expect(facts.every(({ state, says }) => state === "open" && says.startsWith("0 of"))).toBe(true);
});

test("with every reading as expected and the visit over all is met; one otherwise fails its own", () => {
  const visit = [
    by({ id: testId("entry", "start"), at: AT, do: "start", from: "box", name: "", changes: [] }),
    by({ id: testId("entry", "end"), at: AT, do: "end", note: "" }),
  ];
  const all = sheet.tests.map(({ id }) => taken("expected", id));
  expect(judge([...visit, ...all], []).filter(({ state }) => state !== "met")).toEqual([]);
  expect(judge([...visit.slice(0, 1), ...all], [])[1]).toMatchObject({
    state: "open",
    says: "the visit that Ruth began goes on",
  });
  const scope = must(
    sheet.tests.find(({ proves }) => proves.some((fact) => fact.startsWith("scope "))),
    "a test of a scope",
  );
  const wrong = judge([...visit, ...all.slice(1), taken("otherwise", scope.id)], []);
  const failed = wrong.filter(({ state }) => state === "failed");
  expect(failed.map(({ words }) => words)).toContain("Every DHCP scope gives its addresses");
  expect(criteriaTable(wrong)).toHaveLength(wrong.length + 1);
});

test("a fault that was found asks for its readings once more before all is met", () => {
  const test = must(
    sheet.tests.find(({ question }) => question !== null),
    "a test",
  );
  const fault = by({
    id: testId("entry", "fault"),
    at: "2026-11-29T10:00:00.000Z",
    do: "fault",
    fault: { id: "x", kind: "cable", words: "A cable is out", mend: "Put it in.", explains: null },
    note: "",
    changes: [],
  });
  const last = judge([taken("otherwise", test.id), fault], []).at(-1);
  expect(last).toMatchObject({ state: "open", says: "1 reading is to be taken again", at: "wrong" });
});
