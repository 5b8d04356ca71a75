import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../plan";
import { acceptFinding } from "../planners";
import { acceptedAs, listFindings, runChecks, splitAccepted, wokenBy, type Finding } from ".";

const TODAY = "2026-11-28";
const edited = (plan: Plan, edit: (edits: PlanEdits) => void): Plan => {
  const edits = new PlanEdits(plan);
  edit(edits);
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "it applies");
};
const list = (index: PlanIndex): Finding[] => listFindings(runChecks(index));
const parted = (plan: Plan, today: string | null = TODAY) => {
  const index = PlanIndex.of(plan, today);
  return splitAccepted(index, list(index));
};
/** The first finding of a kind of the practice. */
const worst = (plan: Plan): Finding => must(list(PlanIndex.of(plan, TODAY))[0], "a finding");

const accept = (plan: Plan, fields: { readonly until?: string; readonly reason?: string } = {}) => {
  const index = PlanIndex.of(plan, TODAY);
  let refusal: string | null = null;
  const after = edited(plan, (edits) => {
    refusal = acceptFinding(
      { edits, ids: () => "019a0000-0000-7000-8000-000000000001" },
      { ...acceptedAs(index, worst(plan)), reason: "mended in spring", by: "Ruth", until: "", ...fields },
    );
  });
  return { after, refusal };
};

test("without any acceptance every finding is open", () => {
  const { open, accepted, gone } = parted(fennelStreet());
  expect([open.length > 0, accepted, gone]).toEqual([true, [], []]);
});

test("an accepted finding is open no more and keeps its reason; accepted again it is one acceptance", () => {
  const plan = fennelStreet();
  const all = parted(plan).open;
  const { after } = accept(plan);
  const { open, accepted, gone } = parted(after);
  expect(open).toHaveLength(all.length - 1);
  expect(accepted.map(({ finding, acceptance }) => [finding.key, acceptance.reason, acceptance.by])).toEqual([
    [worst(plan).key, "mended in spring", "Ruth"],
  ]);
  expect(gone).toEqual([]);
  const again = accept(after, { reason: "mended in summer" }).after;
  expect([...again.acceptance.values()].map(({ reason }) => reason)).toEqual(["mended in summer"]);
});

test("it wakes when the values that its sentence speaks of change, and says what it said", () => {
  const plan = fennelStreet();
  const { after } = accept(plan);
  const finding = worst(plan);
  const subject = must(
    finding.subjects.find(({ kind }) => kind === "device" || kind === "segment"),
    "a subject",
  );
  const renamed = edited(after, (edits) =>
    edits.patch(subject.kind as "device", subject.id, { name: "Something else" }),
  );
  const index = PlanIndex.of(renamed, TODAY);
  const now = must(
    list(index).find(({ key }) => key === finding.key),
    "it is still found",
  );
  expect(splitAccepted(index, list(index)).accepted).toEqual([]);
  expect(wokenBy(index, now).map(({ why }) => why)).toEqual([
    `What was accepted said: ${acceptedAs(PlanIndex.of(plan, TODAY), finding).says}`,
  ]);
});

test.each([
  ["2026-11-28", 1],
  ["2026-11-27", 0],
])("until %s: its last day still counts, the day after does not", (until, count) => {
  const { after } = accept(fennelStreet(), { until });
  expect(parted(after).accepted).toHaveLength(count);
  expect(parted(after, null).accepted).toHaveLength(1);
  const index = PlanIndex.of(after, TODAY);
  expect(wokenBy(index, worst(fennelStreet())).map(({ why }) => why)).toEqual(
    count === 1 ? [] : [`It was accepted until ${until}.`],
  );
});

test("what is found no more is said to be gone", () => {
  const plan = fennelStreet();
  const { after } = accept(plan);
  const index = PlanIndex.of(after, TODAY);
  const { gone } = splitAccepted(
    index,
    list(index).filter(({ key }) => key !== worst(plan).key),
  );
  expect(gone.map(({ reason }) => reason)).toEqual(["mended in spring"]);
});

test.each([
  [{ reason: "  " }, "Say why it is accepted: whoever comes next has to understand it."],
  [{ reason: "x".repeat(121) }, "A reason has at most 120 characters."],
  [{ until: "soon" }, /^"soon" is not a date/],
])("bad input %o is a sentence and changes nothing", (fields, says) => {
  const { after, refusal } = accept(fennelStreet(), fields);
  expect(refusal).toMatch(says);
  expect(after.acceptance.size).toBe(0);
});
