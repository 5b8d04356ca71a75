import { bramblewick } from "../demo/bramblewick";
import { fennelStreet } from "../demo/fennel-street";
import { encodePlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { PlanIndex, type Plan } from "../src/core/plan";
import {
  changesOf,
  remaining,
  siteAsIs,
  tickedStep,
  type Recorded,
  type RecordEntry,
} from "../src/core/records";
import { testSheet } from "../src/core/commissioning";
import { deviceData, yangText } from "../src/core/device-sheet";
import { afterYang, driftBetween, knowledgeOf } from "../src/core/readback";
import { foundState, provenRunbook, setUpDevices } from "../src/core/runbook";
import { testId } from "../src/core/testing/build-plan";
import { administered } from "./administered";
import { sized } from "./generate";

type Median = (runs: number, once: () => unknown) => number;
type Add = (what: string, ms: number, parse: number) => void;

const AT = "2026-11-29T09:00:00.000Z";
/** As many steps have been ticked when one differs. */
const TICKED = 60;

/** What somebody has written down who has ticked the first steps of an order. */
function recordOf(index: PlanIndex): Recorded[] {
  const start: RecordEntry = {
    id: testId("entry", "start"),
    at: AT,
    do: "start",
    from: "box",
    name: "",
    changes: [],
  };
  const record: Recorded[] = [{ by: "Ruth", entry: start }];
  const { steps } = must(remaining(index, record), "an order").runbook;
  for (const [at, step] of steps.slice(0, TICKED).entries()) {
    const asIs = must(
      siteAsIs(
        index,
        record.map(({ entry }) => entry),
      ),
      "a state",
    );
    const changes = step.operation === null ? [] : must(changesOf(asIs, step.operation), "it can be done");
    const id = testId("entry", `${at}`);
    const tick = { id, at: AT, do: "tick", after: null, step: tickedStep(step), came: "done" } as const;
    record.push({ by: "Ruth", entry: { ...tick, read: "", note: "", photos: [], changes } });
  }
  return record;
}

class Found extends Error {}

/** Looks for an order until it is known what comes first, as the page shows it. */
function firstOf(plan: Plan, record: readonly Recorded[]): void {
  try {
    remaining(PlanIndex.of(plan), record, {
      now: null,
      tell: (_done, _all, ahead) => {
        if (ahead !== null) throw new Found();
      },
    });
  } catch (error) {
    if (!(error instanceof Found)) throw error;
  }
}

/** Rows about the record: what is on the devices by it, and the order of what is left. */
function measureRecord(median: Median, add: Add): void {
  const plan = sized("office");
  const text = JSON.stringify(encodePlan(plan));
  const parse = median(5, () => JSON.parse(text));
  const record = recordOf(PlanIndex.of(plan));
  const entries = record.map(({ entry }) => entry);
  add(
    `office: what is on the devices after ${TICKED} ticks`,
    median(5, () => siteAsIs(PlanIndex.of(plan), entries)),
    parse,
  );
  add(
    `office: what comes next after ${TICKED} ticks`,
    median(5, () => firstOf(plan, record)),
    parse,
  );
  add(
    `office: the order of what is left after ${TICKED} ticks`,
    median(1, () => remaining(PlanIndex.of(plan), record)),
    parse,
  );
}

/** Rows about what devices show: the largest one is read and laid, and all are compared with the plan. */
function measureReadback(median: Median, add: Add): void {
  for (const name of ["office", "campus"]) {
    const plan = sized(name);
    const index = PlanIndex.of(plan);
    const text = JSON.stringify(encodePlan(plan));
    const parse = median(5, () => JSON.parse(text));
    const box = must(foundState(index, null), "out of the box");
    const [device] = setUpDevices(index).sort(
      (a, b) => index.portsOf(b.id).length - index.portsOf(a.id).length,
    );
    const own = must(device, "a device");
    const shown = yangText(deviceData(index, own));
    add(
      `${name}: ${own.name} with ${index.portsOf(own.id).length} ports is read and laid`,
      median(5, () => afterYang({ index, asIs: box, device: own, ids: () => "" }, shown)),
      parse,
    );
    const knowledge = knowledgeOf([], true);
    add(
      `${name}: all that differs on all devices`,
      median(3, () => driftBetween(box, index, knowledge)),
      parse,
    );
  }
}

/** Rows about orders of work, all from gear out of the box, and about the record of what was done of them. */
export function measureRunbook(median: Median, add: Add): void {
  const plans: readonly (readonly [string, Plan, number])[] = [
    ["practice", fennelStreet(), 3],
    ["works", bramblewick(), 3],
    ["office", sized("office"), 1],
    ["office with addresses for its gear", administered(sized("office")), 1],
    ["campus with addresses for its gear", administered(sized("campus")), 1],
  ];
  for (const [name, plan, runs] of plans) {
    const text = JSON.stringify(encodePlan(plan));
    const parse = median(5, () => JSON.parse(text));
    let words = "";
    const ms = median(runs, () => {
      const made = provenRunbook(PlanIndex.of(plan), null);
      words =
        made === null
          ? "no order"
          : `${made.operations.length} operations, ${made.runbook.moves} moves, ` +
            `${made.runbook.consoles} by console`;
    });
    add(`${name}: runbook out of the box, ${words}`, ms, parse);
  }
  measureRecord(median, add);
  measureReadback(median, add);
  measureTests(median, add);
}

/** Rows about the readings that prove a site. */
function measureTests(median: Median, add: Add): void {
  const plans: readonly (readonly [string, Plan, number])[] = [
    ["practice", fennelStreet(), 3],
    ["office with addresses for its gear", administered(sized("office")), 3],
    ["campus with addresses for its gear", administered(sized("campus")), 1],
  ];
  for (const [name, plan, runs] of plans) {
    const text = JSON.stringify(encodePlan(plan));
    const parse = median(5, () => JSON.parse(text));
    let words = "";
    const ms = median(runs, () => {
      const { tests, facts, atLeast } = testSheet(PlanIndex.of(plan));
      words = `${tests.length} readings for ${facts.length} facts, at least ${atLeast}`;
    });
    add(`${name}: ${words}`, ms, parse);
  }
}
