import { fennelStreet } from "../../../demo/fennel-street";
import { listFindings, runChecks } from "@/core/checks";
import { must } from "@/core/kernel";
import { emptyPlan, PlanEdits, PlanIndex, type Plan } from "@/core/plan";
import { aSite, testId } from "@/core/testing/build-plan";
import { addBatch, findingsOf, isJudged, type Held, type Judged } from "./held";
import { isLarge, judgedNow, makeJudge } from "./judge";

const index = PlanIndex.of(fennelStreet());
const judged: Judged = { index, findings: runChecks(index) };
const start: Held = { base: index.plan, revision: 7, pending: [], stuck: [], index, judged };
const trunks = [...index.plan.port.values()].filter(({ tagged }) => tagged.length > 2);

/** A trunk that carries nothing tagged any more. */
function without(held: Held, n: number): Held {
  const edits = new PlanEdits(held.index.plan);
  edits.patch("port", must(trunks[n], "a trunk").id, { tagged: [] });
  const added = addBatch(held, {
    id: testId("batch", `without ${n}`),
    planner: "test",
    summary: "without a trunk",
    args: null,
    changes: edits.changes(),
  });
  return must(added.ok ? added.value : null, "it fits");
}
const keysOf = (found: Judged | null) => listFindings(must(found, "judged").findings).map(({ key }) => key);
const anew = (plan: Plan) => listFindings(runChecks(PlanIndex.of(plan))).map(({ key }) => key);

/** A page that shows a plan, and is judged on its behalf. */
function page(first: Held) {
  let held: Held | null = first;
  const taken: Judged[] = [];
  const judge = makeJudge(
    () => held,
    (judged) => {
      taken.push(judged);
      held = held === null ? null : { ...held, judged };
    },
  );
  const show = (next: Held | null) => {
    held = next;
    if (next !== null && !isJudged(next)) judge();
  };
  return { show, taken, held: () => must(held, "a plan") };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
/** Every look at the clock is a stretch later: the page goes on between any two checks. */
const everyCheckIsLong = () => {
  let now = 0;
  jest.spyOn(performance, "now").mockImplementation(() => (now += 20));
};
afterEach(() => jest.restoreAllMocks());

test("what is edited is judged only after the frame that shows it", async () => {
  const { show, taken, held } = page(start);
  show(without(start, 0));
  await Promise.resolve();
  expect([taken, held().judged]).toEqual([[], judged]);
  await jest.advanceTimersByTimeAsync(40);
  expect(isJudged(held())).toBe(true);
  expect(keysOf(held().judged)).toEqual(anew(held().index.plan));
  expect(keysOf(held().judged)).not.toEqual(keysOf(judged));
});

test("what is edited while it is judged is judged, too, on top of what was found until then", async () => {
  everyCheckIsLong();
  const { show, taken, held } = page(start);
  show(without(start, 0));
  await jest.advanceTimersToNextTimerAsync(6);
  expect(taken.length).toBe(0);
  show(without(held(), 1));
  await jest.runAllTimersAsync();
  expect([taken.length, isJudged(held())]).toEqual([2, true]);
  expect(keysOf(held().judged)).toEqual(anew(held().index.plan));
});

test("a plan that was loaded anew meanwhile keeps its own findings", async () => {
  everyCheckIsLong();
  const { show, taken, held } = page(start);
  show(without(start, 0));
  await jest.advanceTimersToNextTimerAsync(6);
  const fresh = PlanIndex.of(fennelStreet());
  show({ ...start, index: fresh, base: fresh.plan, judged: null });
  await jest.runAllTimersAsync();
  expect([taken.length, held().judged]).toEqual([0, null]);
});

test("a tab that nobody sees draws no frame, and is judged all the same", async () => {
  jest.spyOn(window, "requestAnimationFrame").mockReturnValue(0);
  const { show, held } = page(start);
  show(without(start, 0));
  await jest.runAllTimersAsync();
  expect(isJudged(held())).toBe(true);
});

test("at once, what is shown is judged as it would be later; what nobody has judged is left", () => {
  const edited = without(start, 0);
  expect(judgedNow(edited).judged).toEqual({ index: edited.index, findings: findingsOf(edited) });
  expect(judgedNow(start)).toBe(start);
  const unjudged = { ...edited, judged: null };
  expect(judgedNow(unjudged)).toBe(unjudged);
});

test("an office is small, a site with more than five thousand things in it is large", () => {
  const [port] = index.plan.port.values();
  const many = (n: number): Plan => ({
    ...emptyPlan(aSite()),
    port: new Map(Array.from({ length: n }, (_, i) => [`${i}`, must(port, "a port")])),
  });
  // The site is one of them.
  expect([isLarge(index.plan), isLarge(many(4999)), isLarge(many(5000))]).toEqual([false, false, true]);
});
