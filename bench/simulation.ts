import { bramblewick } from "../demo/bramblewick";
import { fennelStreet } from "../demo/fennel-street";
import { lockkeepersHouse } from "../demo/lockkeepers-house";
import { FailureStudy, singleFailures } from "../src/core/failure";
import { must } from "../src/core/kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../src/core/plan";
import { carryExactly } from "../src/core/planners";
import { asClient, probe } from "../src/core/probe";
import { reachMatrix } from "../src/core/reach";
import { TREE } from "../src/core/spanning-tree";
import { CARRY, flood } from "../src/core/forwarding";
import { FABRIC } from "../src/core/fabric";
import { judgeFaults } from "../src/core/testing/faults";
import { dice } from "../src/core/testing/plants";

type Median = (runs: number, once: () => unknown) => number;

/**
 * The simulation's own rows for a plan: each from nothing, as after loading it, but the probe, which is asked
 * of a plan that is there.
 */
export function simulationRows(
  plan: Plan,
  index: PlanIndex,
  runs: number,
  median: Median,
): Record<string, number> {
  const host = must([...plan.host.values()].at(-1), "a host");
  const question = asClient({ at: "host", host: host.id }, { to: "internet", service: null });
  const ports = [...plan.host.values()].filter((host) => host.attachment.at === "port").slice(0, 200);
  const all = singleFailures(index);
  return {
    trees: median(runs, () => {
      const fresh = PlanIndex.of(plan);
      fresh.derived(FABRIC);
      return fresh.derived(TREE);
    }),
    "forwarding and carry of all VLANs": median(runs, () => PlanIndex.of(plan).derived(CARRY)),
    [`flood from ${ports.length} hosts`]: median(Math.min(runs, 5), () =>
      ports.map((host) =>
        flood(index, {
          at: "port",
          port: host.attachment.at === "port" ? host.attachment.port : "",
          tag: host.tag,
          host: host.id,
        }),
      ),
    ),
    "probe to the internet and back": median(runs * 20, () => probe(index, question, () => "")),
    [`reach matrix of ${plan.segment.size} segments`]: median(runs, () => reachMatrix(index)),
    [`all ${all.length} single failures`]: median(Math.min(runs, 3), () => {
      const study = new FailureStudy(index);
      return all.map((failure) => study.fail([failure]));
    }),
  };
}

/** How a thousand planted faults come out: mended, blamed. */
export function faultFigures(): string {
  const whole = (plan: Plan): Plan => {
    const edits = new PlanEdits(plan);
    carryExactly(edits, PlanIndex.of(plan));
    const applied = applyChanges(plan, edits.changes());
    return must(applied.ok ? applied.value : null, "applies");
  };
  const { planted, mended, blamed } = judgeFaults(
    [bramblewick(), fennelStreet(), lockkeepersHouse()].map(whole),
    1000,
    dice(20_261_125),
    () => crypto.randomUUID(),
  );
  return (
    `of ${planted} planted faults ${mended} mended by a repair on ` +
    `offer, in ${blamed} the first cause names the faulty thing`
  );
}
