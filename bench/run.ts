// Prints the median of each operation beside JSON.parse of the same plan, measured in the same run.
import { FENNEL_STREET } from "../demo/surveys";
import { asPrefix4, parsePrefix } from "../src/core/address";
import { CHECKS, listFindings, recheck, runChecks } from "../src/core/checks";
import { decodePlan, encodePlan, openPlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { applyChanges, PlanEdits, PlanIndex, type Change, type Plan } from "../src/core/plan";
import { allocate, plan as runPlanner, renumberBlock } from "../src/core/planners";
import { guessColumns, readHostTable } from "../src/core/register";
import { draftPlan, USUAL_PARTS } from "../src/core/survey";
import { surveyPlan } from "../src/core/testing/survey-plan";
import { generate, SIZES } from "./generate";
import { measureCapture } from "./capture";
import { measureGuards } from "./guards";
import { measureDiagnosis } from "./diagnosis";
import { measureRunbook } from "./runbook";
import { measureHardware } from "./hardware";
import { measureRules } from "./rules";
import { faultFigures, simulationRows } from "./simulation";

function median(runs: number, once: () => unknown): number {
  const times = Array.from({ length: runs }, () => {
    const begin = performance.now();
    once();
    return performance.now() - begin;
  }).sort((a, b) => a - b);
  return times[Math.floor(times.length / 2)] ?? 0;
}

const only = process.argv[2];
const rows: Record<string, string | number>[] = [];
for (const size of SIZES.filter((s) => only === undefined || s.name === only)) {
  const text = JSON.stringify(encodePlan(generate(size)));
  // Decoded, as the application has it: objects put together by hand have other shapes, and other speeds.
  const read = decodePlan(JSON.parse(text));
  const plan: Plan = must(read.ok ? read.value : null, "the generated plan is sound");
  const runs = size.name === "estate" ? 5 : 15;
  const index = PlanIndex.of(plan);
  const findings = runChecks(index);
  const port = must(
    [...plan.port.values()].find((p) => p.pvid !== null),
    "an access port",
  );
  const host = must([...plan.host.values()].at(-1), "a host");
  const edited = (edit: (edits: PlanEdits) => void): Change[] => {
    const edits = new PlanEdits(plan);
    edit(edits);
    return edits.changes();
  };
  const other = must(
    [...plan.port.values()].find((p) => p.device === port.device && p.pvid !== null && p.pvid !== port.pvid),
    "another VLAN's port",
  );
  const uplink = must(
    [...plan.port.values()].find((p) => p.tagged.length > 1),
    "a trunk",
  );
  const portEdit = edited((edits) =>
    edits.patch("port", port.id, { pvid: other.pvid, untagged: other.untagged }),
  );
  const hostEdit = edited((edits) =>
    edits.patch("host", host.id, { ipv4: null, manner: "dynamic", name: "edited" }),
  );
  const trunkEdit = edited((edits) => edits.patch("port", uplink.id, { tagged: uplink.tagged.slice(1) }));
  const apply = (changes: Change[]) => {
    const result = applyChanges(plan, changes);
    return must(result.ok ? result.value : null, "applies");
  };
  const recheckAfter = (changes: Change[]) =>
    recheck(findings, index.derive(apply(changes), changes), changes);
  const parse = median(runs, () => JSON.parse(text));
  const measured: Record<string, number> = {
    "JSON.parse": parse,
    "decode plan": median(Math.min(runs, 5), () => decodePlan(JSON.parse(text))),
    "open a stored plan": median(Math.min(runs, 5), () => openPlan(JSON.parse(text))),
    "build index + all checks": median(runs, () => runChecks(PlanIndex.of(plan))),
    "build index": median(runs, () => {
      const fresh = PlanIndex.of(plan);
      for (const name of [
        "portsByDevice",
        "linksByPort",
        "hostsByPort",
        "hostsByAddress",
        "hostsByMac",
        "hostsBySegment",
        "interfacesByDevice",
        "interfacesBySegment",
        "scopesBySegment",
        "segmentsByVlan",
        "vlansByDomainAndVid",
      ] as const)
        fresh.groups(name);
    }),
    "apply 1 change": median(runs, () => apply(portEdit)),
    "one-edit recheck: access port's VLAN": median(runs, () => recheckAfter(portEdit)),
    "one-edit recheck: host's address": median(runs, () => recheckAfter(hostEdit)),
    "one-edit recheck: VLAN off a trunk": median(runs, () => recheckAfter(trunkEdit)),
    ...simulationRows(plan, index, runs, median),
  };
  for (const [operation, ms] of Object.entries(measured)) {
    rows.push({
      size: size.name,
      operation,
      "median ms": Number(ms.toFixed(2)),
      "x JSON.parse": Number((ms / parse).toFixed(2)),
    });
  }
  rows.push({
    size: size.name,
    operation:
      `(${(text.length / 1e6).toFixed(1)} MB, ${plan.port.size} ports, ` +
      `${plan.host.size} hosts, ${listFindings(findings).length} findings)`,
    "median ms": "",
    "x JSON.parse": "",
  });
}
/** What is not measured by the size of a plan. */
function add(operation: string, ms: number, parse: number, size = "numbering"): void {
  rows.push({
    size,
    operation,
    "median ms": Number(ms.toFixed(2)),
    "x JSON.parse": Number((ms / parse).toFixed(2)),
  });
}

if (only === undefined || only === "numbering") {
  const estate = must(
    SIZES.find((s) => s.name === "estate"),
    "the estate",
  );
  const text = JSON.stringify(encodePlan(generate(estate)));
  const read = decodePlan(JSON.parse(text));
  const plan: Plan = must(read.ok ? read.value : null, "the generated plan is sound");
  const index = PlanIndex.of(plan);
  const parse = median(5, () => JSON.parse(text));
  add("JSON.parse of the estate", parse, parse);
  const block = must(asPrefix4(parsePrefix("10.0.0.0/8")), "a block");
  const other = must(asPrefix4(parsePrefix("11.0.0.0/8")), "a block");
  add(
    `allocate ${plan.segment.size} segments`,
    median(5, () =>
      allocate(PlanIndex.of(plan), { blocks: [block], scheme: "packed", keep: new Set(), doubled: false }),
    ),
    parse,
  );
  add(
    "renumber the estate",
    median(3, () => {
      const edits = new PlanEdits(plan);
      const refusal = renumberBlock(edits, index, block, other);
      if (refusal !== null) throw new Error(refusal);
      return edits.changes();
    }),
    parse,
  );
  const ofAddresses = CHECKS.filter((check) => check.family === "addresses");
  add(
    `check ${plan.host.size} addresses (${ofAddresses.length} checks)`,
    median(5, () => {
      const fresh = PlanIndex.of(plan);
      return ofAddresses.map((check) => check.run(fresh));
    }),
    parse,
  );
  const table = [
    ["Name", "MAC", "Address", "Segment"],
    ...Array.from({ length: 5000 }, (_, i) => [
      `new-${i}`,
      `02:5b:${(i >> 8).toString(16).padStart(2, "0")}:${(i & 255).toString(16).padStart(2, "0")}:00:01`,
      "",
      must([...plan.segment.values()][i % 1000], "a segment").name,
    ]),
  ];
  add(
    "read 5000 pasted rows",
    median(5, () => readHostTable(index, table, guessColumns(table), null)),
    parse,
  );
  add(
    "draft an office from its survey",
    median(5, () =>
      runPlanner(
        PlanIndex.of(surveyPlan(FENNEL_STREET)),
        () => crypto.randomUUID(),
        { planner: "draft", summary: "", args: null },
        (context) => {
          draftPlan(context, USUAL_PARTS);
        },
      ),
    ),
    parse,
  );
}
async function finish(): Promise<void> {
  if (only === undefined || only === "hardware")
    await measureHardware((operation, ms, parse) => add(operation, ms, parse, "hardware"), median);
  if (only === undefined || only === "rules")
    measureRules(median, (operation, ms, parse) => add(operation, ms, parse, "rules"));
  if (only === undefined || only === "guards")
    measureGuards(median, (operation, ms, parse) => add(operation, ms, parse, "guards"));
  if (only === undefined || only === "capture")
    measureCapture(median, (operation, ms, parse) => add(operation, ms, parse, "capture"));
  if (only === undefined || only === "diagnosis")
    measureDiagnosis(median, (operation, ms, parse) => add(operation, ms, parse, "diagnosis"));
  if (only === undefined || only === "runbook")
    measureRunbook(median, (operation, ms, parse) => add(operation, ms, parse, "runbook"));
  console.table(rows);
  if (only === undefined || only === "faults") process.stdout.write(`${faultFigures()}\n`);
}

void finish();
