import { readFileSync } from "node:fs";
import { parsePrefix } from "../address";
import { must } from "../kernel";
import { listFindings, runChecks } from "../checks";
import {
  COLLECTION_KINDS,
  emptyPlan,
  invert,
  applyChanges,
  LIST_NAMES,
  NO_PROTECTIONS,
  PlanIndex,
  isGateway,
} from "../plan";
import { VERSION, upgradedBatches } from "./older";
import { decodeChanges, changeBatchSchema } from "./change-codec";
import { readPlanFile, writePlanFile } from "./plan-file";

/** Plan files as the application wrote them in the forms before this one. */
const OLDER = [
  "1",
  "2",
  "3",
  "3-practice",
  "4",
  "4-forward",
  "5",
  "5-lines",
  "6",
  "7",
  "8",
  "9",
  "10",
  "11",
  "12",
  "13",
  "14",
  "15",
  "16",
].map((version) => {
  const text = readFileSync(`tests/fixtures/plan-version-${version}.json`, "utf8");
  const read = readPlanFile(text);
  return [
    version,
    {
      file: JSON.parse(text) as Record<string, unknown>,
      plan: must(read.ok ? read.value : null, "the old file is read"),
    },
  ] as const;
});

const OF_THE_PRACTICE = ["names-behind-wall", "vlan-missing-on-hop", "vlan-missing-on-hop"];
const MISTAKES: Readonly<Record<string, readonly string[]>> = {
  "2": ["vlan-missing-on-hop"],
  "3-practice": OF_THE_PRACTICE,
  "4": OF_THE_PRACTICE,
  "4-forward": OF_THE_PRACTICE,
  "5": [...OF_THE_PRACTICE, "list-lets-more"],
  "6": [...OF_THE_PRACTICE, "list-lets-more"],
  "7": [...OF_THE_PRACTICE, "list-lets-more"],
  "8": [...OF_THE_PRACTICE, "list-lets-more"],
  "9": [...OF_THE_PRACTICE, "list-lets-more"],
  "10": [...OF_THE_PRACTICE, "list-lets-more"],
  "11": [...OF_THE_PRACTICE, "list-lets-more"],
  "12": [...OF_THE_PRACTICE, "list-lets-more"],
  "13": [...OF_THE_PRACTICE, "list-lets-more"],
  "14": [...OF_THE_PRACTICE, "list-lets-more"],
  "15": [...OF_THE_PRACTICE, "list-lets-more"],
  "16": [...OF_THE_PRACTICE, "list-lets-more"],
};
/** What the forwards of a form say of who may come in and until when. */
const FORWARDS: Readonly<Record<string, readonly unknown[]>> = {
  "4-forward": [{ sources: [], until: null }],
  "5-lines": [{ sources: [parsePrefix("203.0.113.40/32")], until: null }],
};

test.each(OLDER)(
  "a file of version %s is read whole: nothing it says is lost, and what it lacks changes nothing",
  (version, { file, plan }) => {
    for (const kind of COLLECTION_KINDS)
      expect(plan[kind].size).toBe(((file[LIST_NAMES[kind]] ?? []) as unknown[]).length);
    expect([...plan.device.values()][0]).toMatchObject({
      abilities: { ownTag: "accept" },
      hears: [],
      poe: "asKind",
      protections: NO_PROTECTIONS,
      tree: { costs: "long", instances: [] },
    });
    expect([
      plan.site.conventions.cablePattern,
      [...plan.forward.values()].map(({ sources, until }) => ({ sources, until })),
      [...plan.device.values()].every(
        (device) => device.filter.list === (isGateway(device) ? "planned" : "none"),
      ),
      [...plan.port.values()].every((port) => port.treePriority === 128),
    ]).toEqual(["{from}-{fromPort}", FORWARDS[version] ?? [], true, true]);
    // Some were made with mistakes in them: a VLAN that the tree's spare way would have carried, a name
    // server behind a wall.
    expect(
      listFindings(runChecks(PlanIndex.of(plan)))
        .filter((finding) => finding.severity === "stop")
        .map((finding) => finding.code),
    ).toEqual(MISTAKES[version] ?? []);
    expect(readPlanFile(writePlanFile(plan))).toEqual({ ok: true, value: plan });
  },
);

test.each(OLDER)(
  "what is missing in a file of the present version is still refused, version %s",
  (_, { plan }) => {
    const present = JSON.parse(writePlanFile(plan)) as { devices: Record<string, unknown>[] };
    delete must(present.devices[0], "a device").abilities;
    const again = readPlanFile(JSON.stringify(present));
    expect(again.ok ? "" : must(again.error[0], "a fault").sentence).toMatch(
      /^devices\[0\] ".*"\.abilities: is missing/,
    );
  },
);

test.each(OLDER)(
  "changes logged in version %s can still be applied and undone, and those a browser kept are still sent",
  (version, { file, plan }) => {
    const logged = COLLECTION_KINDS.flatMap((kind) =>
      ((file[LIST_NAMES[kind]] ?? []) as { id: string }[]).map((after) => ({
        kind,
        id: after.id,
        before: null,
        after,
      })),
    );
    const changes = decodeChanges(logged);
    expect(applyChanges(emptyPlan(plan.site), changes)).toEqual({ ok: true, value: plan });
    const back = applyChanges(plan, invert(changes));
    expect(back.ok ? back.value : back.error).toEqual(emptyPlan(plan.site));
    const batch = {
      id: must(logged[0], "a change").id,
      planner: "import-plan",
      summary: "kept",
      args: null,
      changes: logged,
    };
    expect(changeBatchSchema.array().safeParse(upgradedBatches([batch])).success).toBe(true);
    // Versions 12 to 15 lacked only what goes beside a plan, and version 16 a field of the site.
    expect(changeBatchSchema.array().safeParse([batch]).success).toBe(
      ["12", "13", "14", "15", "16"].includes(version),
    );
  },
);

test("what version 5 said of a line's use is its place now; a share without percents is half", () => {
  const file = JSON.parse(readFileSync("tests/fixtures/plan-version-5-lines.json", "utf8")) as {
    lines: { name: string; use: string }[];
  };
  const placed = (uses: readonly string[]) => {
    file.lines.forEach((line, i) => (line.use = must(uses[i], "a use")));
    const read = readPlanFile(JSON.stringify(file));
    return [...must(read.ok ? read.value : null, "it is read").line.values()].map((line) => [
      line.place,
      line.share,
      line.watch.by,
      line.pins,
    ]);
  };
  expect(placed(["main", "standby"])).toEqual([
    [0, 0, "link", []],
    [2, 0, "link", []],
  ]);
  expect(placed(["shared", "main"])).toEqual([
    [1, 50, "link", []],
    [0, 0, "link", []],
  ]);
});

test("the file of the present form is kept, too: it is read whole, and written again it says the same", () => {
  const text = readFileSync(`tests/fixtures/plan-version-${VERSION}.json`, "utf8");
  const read = readPlanFile(text);
  expect(JSON.parse(writePlanFile(must(read.ok ? read.value : null, "it is read")))).toEqual(
    JSON.parse(text),
  );
});

test("a port of version 3 that names a profile gets its id; a name that none has goes to its note", () => {
  const file = JSON.parse(readFileSync("tests/fixtures/plan-version-3-practice.json", "utf8")) as {
    ports: { guards: { profile: string } }[];
    signIns: { id: string; name: string }[];
  };
  const [first, second] = file.ports;
  must(first, "a port").guards.profile = must(file.signIns[0], "a profile").name.toUpperCase();
  must(second, "a port").guards.profile = "Workshop";
  const read = readPlanFile(JSON.stringify(file));
  const ports = [...must(read.ok ? read.value : null, "it is read").port.values()];
  expect(ports.slice(0, 2).map(({ guards, note }) => [guards.profile, note])).toEqual([
    [must(file.signIns[0], "a profile").id, ""],
    [null, "802.1X profile: Workshop"],
  ]);
});
