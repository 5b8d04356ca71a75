import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { PlanIndex, type Plan } from "../plan";
import { complaintOf } from "../testing/diagnose";
import { plant } from "../testing/faults";
import { mixedSite } from "../testing/mixed-site";
import { dice } from "../testing/plants";
import { wholeSight } from "./sight";
import { Study } from "./study";

// What is not in sight is not simulated: held to the slow way, which tries every fault everywhere.

/**
 * What is tried under another name: a scope on gear out of sight comes to the same as none, and a line's port
 * that is off to a line that is down.
 */
function isSaidOtherwise({ plan }: PlanIndex, id: string): boolean {
  const [kind, first = "", second] = id.split(" ");
  const isLine = [...plan.interface.values()].some(({ port, line }) => port === first && line !== null);
  return (kind === "server" && second !== undefined) || (kind === "switched" && isLine);
}

/** Faults that explain a complaint and that the narrower sight leaves out. */
function leftOut(plans: readonly Plan[], count: number, seed: number): string[] {
  const roll = dice(seed);
  const missed: string[] = [];
  for (let tried = 0; tried < count;) {
    const plan = must(plans[roll(plans.length)], "a site");
    const fault = plant(plan, roll);
    if (fault === null) continue;
    const study = new Study(PlanIndex.of(plan));
    const complaint = complaintOf(study, PlanIndex.of(fault.plan), fault.notice, roll);
    if (complaint === null) continue;
    tried += 1;
    const ids = ({ candidates }: ReturnType<Study["diagnose"]>) =>
      candidates.map(({ suspect }) => suspect.id);
    const near = new Set(ids(study.diagnose([complaint])));
    const all = study.diagnose([complaint], undefined, wholeSight(study.index));
    const kinds = new Map(all.candidates.map(({ suspect }) => [suspect.id, suspect.words]));
    const isSaid = (id: string) => near.has(id) || isSaidOtherwise(study.index, id);
    missed.push(...ids(all).flatMap((id) => (isSaid(id) ? [] : [`${fault.kind}: ${kinds.get(id) ?? ""}`])));
  }
  return missed;
}

test("on random sites nothing that explains a complaint is out of sight", () => {
  const roll = dice(41);
  const plans = Array.from({ length: 20 }, () => mixedSite(roll));
  expect(leftOut(plans, 60, 42)).toEqual([]);
});

test("so it is on the three sites", () => {
  expect(leftOut([lockkeepersHouse(), fennelStreet(), bramblewick()], 4, 43)).toEqual([]);
});
