import { administered } from "./administered";
import { sized } from "./generate";
import { testSheet } from "../src/core/commissioning";
import { answer, onPlan, Study, type Ask, type Reading } from "../src/core/diagnosis";
import { must } from "../src/core/kernel";
import { encodePlan } from "../src/core/formats";
import { afterEdits, PlanEdits, PlanIndex, type Plan } from "../src/core/plan";
import { asClient } from "../src/core/probe";

type Median = (runs: number, measured: () => unknown) => number;
type Add = (name: string, ms: number, parse: number) => void;

const READINGS = 10;

/** A site where a VLAN is missing on the way of somebody, and ten readings: one of them notices it. */
function readingsOf(index: PlanIndex): Reading[] {
  const asks = [...index.plan.host.values()]
    .filter(({ attachment }) => attachment.at === "port")
    .map(({ id, manner }): Ask => {
      const goal =
        manner === "typed" ? { to: "gateway" as const, service: null } : { to: "address" as const };
      return { what: "try", question: asClient({ at: "host", host: id }, goal) };
    })
    .filter((ask) => ["lease", "answer"].includes(onPlan(index, ask).expected.is));
  const trunks = [...index.plan.port.values()].filter(
    ({ id, tagged }) => index.linkAt(id) !== undefined && tagged.length > 0,
  );
  const missing = trunks.flatMap(({ id, tagged }) => tagged.map((vid) => ({ id, vid, tagged })));
  for (const { id, vid, tagged } of missing) {
    const edits = new PlanEdits(index.plan);
    edits.patch("port", id, { tagged: tagged.filter((carried) => carried !== vid) });
    const truth = must(afterEdits(index, edits), "a plan");
    const isLost = (ask: Ask) => onPlan(truth, ask).key !== onPlan(index, ask).key;
    const noticed = asks.find(isLost);
    if (noticed === undefined) continue;
    const others = asks.filter((ask) => !isLost(ask)).slice(0, READINGS - 1);
    return [
      { id: "wrong", ask: noticed, seen: { is: "not planned" } },
      ...others.map((ask, at): Reading => ({ id: `${at}`, ask, seen: { is: "planned" } })),
    ];
  }
  return [];
}

/** Rows about which readings prove a site, and what explains those that are otherwise than planned. */
export function measureDiagnosis(median: Median, add: Add): void {
  const plans: readonly (readonly [string, Plan, number])[] = [
    ["office", administered(sized("office")), 3],
    ["campus", administered(sized("campus")), 1],
  ];
  for (const [name, plan, runs] of plans) {
    const text = JSON.stringify(encodePlan(plan));
    const parse = median(5, () => JSON.parse(text));
    const index = PlanIndex.of(plan);
    const readings = readingsOf(index);
    let words = "";
    const listed = median(runs, () => {
      const { tests, facts } = testSheet(PlanIndex.of(plan));
      words = `${tests.length} readings chosen for ${facts.length} facts`;
    });
    add(`${name}: ${words}`, listed, parse);
    const diagnosed = median(runs, () => {
      const { tried } = new Study(PlanIndex.of(plan)).diagnose(readings);
      words = `${tried} single faults tried against ${readings.length} readings`;
    });
    add(`${name}: ${words}`, diagnosed, parse);
    const whole = median(runs, () => {
      const { explainAll, next } = answer(new Study(PlanIndex.of(plan)), readings, { byPairs: false });
      words = `${explainAll} explain all, ${next.length} to read next, and why it fails`;
    });
    add(`${name}: the same; ${words}`, whole, parse);
  }
}
