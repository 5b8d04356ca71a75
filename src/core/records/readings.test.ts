import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { askKey, changesOnDevices, Study, type Ask, type Reading } from "../diagnosis";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { asClient } from "../probe";
import { aTestTaken } from "../testing/a-tick";
import { testId } from "../testing/build-plan";
import { testSheet } from "../commissioning";
import { decodeEntry, encodeEntry, type FaultNamed, type Recorded, type TestTaken } from "./entry";
import { faultsNamed, laidBeside, namedKinds, readingsOf } from "./readings";
import { siteAsIs } from "./as-is";
import { changesOfFound } from "./parts";
import { remaining } from "./remaining";
import { recordTable } from "./table";

const index = PlanIndex.of(lockkeepersHouse());
const sheet = testSheet(index);
const host = must(
  [...index.plan.host.values()].find(({ manner, attachment }) => {
    const port = attachment.at === "port" ? index.plan.port.get(attachment.port) : undefined;
    return manner === "dynamic" && index.plan.device.get(port?.device ?? "")?.bridging === "vlan";
  }),
  "a host",
);
const ask: Ask = { what: "try", question: asClient({ at: "host", host: host.id }, { to: "address" }) };

const BASE = aTestTaken({});
const taken = (part: Partial<TestTaken>, id: string): Recorded => ({
  by: "Ruth",
  entry: { ...BASE, id: testId("entry", id), read: "", says: "", ...part },
});
const asked = (part: Partial<TestTaken>, id: string): Recorded =>
  taken({ test: { ...BASE.test, id: askKey(ask) }, ...part }, id);
const fault: FaultNamed = {
  id: testId("entry", "fault"),
  at: "2026-11-29T10:00:00.000Z",
  do: "fault",
  fault: {
    id: "switched x",
    kind: "portOff",
    words: "Hall switch port 1 is off",
    mend: "Switch it on.",
    explains: null,
  },
  note: "",
  changes: [],
};

test("a reading of the sheet and one that diagnosis asked for are laid beside the simulation", () => {
  const own = must(
    sheet.tests.find(({ question }) => question !== null),
    "a test",
  );
  const record = [
    taken({ test: { ...BASE.test, id: own.id, expected: "" }, came: "otherwise", read: "none" }, "a"),
    asked({ came: "otherwise", read: "" }, "b"),
  ];
  const found = readingsOf(index, sheet, record);
  expect(found.map(({ reading }) => [reading.ask, reading.seen])).toEqual([
    [
      { what: "try", question: own.question },
      { is: "text", text: "none" },
    ],
    [ask, { is: "not planned" }],
  ]);
});

test("what was as expected then is as planned only while the plan still says the same", () => {
  const [as] = readingsOf(index, sheet, [asked({ came: "expected" }, "a")]);
  expect(as?.reading.seen).toEqual({ is: "text", text: BASE.test.expected });
  expect(readingsOf(index, sheet, [asked({ came: "cannot" }, "a")])).toEqual([]);
  expect(readingsOf(index, null, [taken({ test: { ...BASE.test, id: "no such test" } }, "a")])).toEqual([]);
});

test("after a fault what was otherwise is to be read again, and what is read then counts", () => {
  const before = asked({ came: "otherwise", read: "none", at: "2026-11-29T09:00:00.000Z" }, "a");
  const named: Recorded = { by: "Marek", entry: fault };
  expect(readingsOf(index, sheet, [before, named]).map(({ isToRepeat }) => isToRepeat)).toEqual([true]);
  const after = asked({ came: "otherwise", read: "none", at: "2026-11-29T11:00:00.000Z" }, "b");
  expect(readingsOf(index, sheet, [before, named, after]).map(({ isToRepeat }) => isToRepeat)).toEqual([
    false,
  ]);
});

test("a fault that is named leaves what it does not explain where it was", () => {
  const own = must(
    sheet.tests.find(({ question }) => question !== null),
    "a test",
  );
  const [one, other] = [
    asked({ came: "otherwise", read: "none" }, "a"),
    taken({ test: { ...BASE.test, id: own.id }, came: "otherwise", read: "none" }, "b"),
  ];
  const naming = (id: string, explains: readonly string[]): Recorded => ({
    by: "Marek",
    entry: { ...fault, id: testId("fault", id), fault: { ...fault.fault, explains } },
  });
  const waits = (record: readonly Recorded[]) =>
    new Map(readingsOf(index, sheet, record).map(({ taken: { id }, isToRepeat }) => [id, isToRepeat]));
  const first = [one, other, naming("first", [one.entry.id])];
  expect([...waits(first)].sort()).toEqual(
    [
      [one.entry.id, true],
      [other.entry.id, false],
    ].sort(),
  );
  // What another one explained waits on while the next is named.
  expect([...waits([...first, naming("second", [other.entry.id])]).values()]).toEqual([true, true]);
});

test("what was read of something that the plan has no more is left out, and so is what no question is", () => {
  const gone = testId("host", "gone");
  const about = (id: string) => readingsOf(index, null, [taken({ test: { ...BASE.test, id } }, "a")]);
  const keyOf = (question: Parameters<typeof asClient>) =>
    askKey({ what: "try", question: asClient(...question) });
  expect(about(askKey(ask))).toHaveLength(1);
  expect(about(keyOf([{ at: "host", host: gone }, { to: "address" }]))).toEqual([]);
  expect(
    about(
      keyOf([
        { at: "host", host: host.id },
        { to: "host", host: gone, service: null },
      ]),
    ),
  ).toEqual([]);
  expect(about(keyOf([{ at: "port", port: gone, tag: null }, { to: "address" }]))).toEqual([]);
  for (const id of [
    `look ${gone}`,
    `look host ${gone}`,
    `look cable ${gone}`,
    "look",
    "try {",
    "try null",
    "none",
  ])
    expect([id, about(id)]).toEqual([id, []]);
});

test("of thousands that are as expected the last are laid beside faults, and all that are otherwise", () => {
  const record = Array.from({ length: 300 }, (_, at) =>
    taken(
      {
        test: { ...BASE.test, id: must(sheet.tests[at % sheet.tests.length], "a test").id },
        came: at === 0 ? "otherwise" : "expected",
      },
      `${at}`,
    ),
  );
  const all = readingsOf(index, sheet, record);
  expect(laidBeside(all)).toEqual(all);
  const first = must(all[0], "a reading");
  const many = [
    ...all,
    ...Array.from({ length: 5000 }, () => ({
      ...first,
      taken: { ...first.taken, came: "expected" as const },
    })),
  ];
  const few = laidBeside(many);
  expect(few.filter(({ taken: { came } }) => came === "expected")).toHaveLength(200);
  expect(few.filter(({ taken: { came } }) => came !== "expected")).toEqual(
    all.filter(({ taken: { came } }) => came !== "expected"),
  );
});

test("a fault on a device that was set up is a step of what is left to do, until it is done", () => {
  const start: Recorded = {
    by: "Ruth",
    entry: {
      id: testId("entry", "start"),
      at: "2026-11-29T08:00:00.000Z",
      do: "start",
      from: "plan",
      name: "as it was",
      changes: must(changesOfFound(index, index.plan), "a state"),
    },
  };
  const done = must(remaining(index, [start]), "an order");
  expect(done.runbook.steps.filter(({ kind }) => kind === "do")).toEqual([]);
  const study = new Study(index);
  const wrong: Reading = { id: "1", ask, seen: { is: "text", text: "no address" } };
  const port = host.attachment.at === "port" ? host.attachment.port : "";
  expect(study.diagnose([wrong]).candidates.map(({ suspect }) => suspect.id)).toContain(`none ${port}`);
  const suspect = must(study.suspect(`none ${port}`), "a port in no VLAN is one of what was tried");
  const asIs = must(siteAsIs(index, [start.entry]), "a state");
  const changes = changesOnDevices(suspect, asIs);
  expect(changes.map(({ kind, id }) => [kind, id])).toEqual([["port", port]]);
  const left = must(remaining(index, [start, { by: "Ruth", entry: { ...fault, changes } }]), "an order");
  const steps = left.runbook.steps.filter(({ kind }) => kind === "do");
  expect(steps.map(({ device }) => device)).toEqual([index.plan.port.get(port)?.device]);
});

test("a fault that was found is counted for its kind until it is taken back, and is in the table", () => {
  const record: Recorded[] = [{ by: "Ruth", entry: fault }];
  expect(namedKinds(record)).toEqual({ portOff: 1 });
  expect(decodeEntry(encodeEntry(fault))).toEqual(fault);
  expect(recordTable(index, record)[1]).toEqual([
    fault.at,
    "Ruth",
    "fault found",
    "",
    "Hall switch port 1 is off",
    "Switch it on.",
    "",
    "",
    "",
    "",
  ]);
  const back: Recorded = {
    by: "Ruth",
    entry: { id: testId("entry", "back"), at: fault.at, do: "takeBack", tick: fault.id },
  };
  expect([namedKinds([...record, back]), faultsNamed([...record, back])]).toEqual([{}, []]);
});

test("a fault that two people name counts once; one that comes back counts again", () => {
  const named = (id: string): Recorded => ({ by: "Marek", entry: { ...fault, id: testId("entry", id) } });
  const wrong = asked({ came: "otherwise", read: "none" }, "wrong");
  expect(namedKinds([wrong, named("a"), named("b")])).toEqual({ portOff: 1 });
  expect(namedKinds([wrong, named("a"), wrong, named("b")])).toEqual({ portOff: 2 });
});

test("what was read before a fault was named is told by the record, not by a clock that is slow", () => {
  const slow = asked({ came: "otherwise", read: "none", at: "2026-11-29T08:00:00.000Z" }, "slow");
  const found = readingsOf(index, sheet, [{ by: "Marek", entry: fault }, slow]);
  expect(found.map(({ isToRepeat }) => isToRepeat)).toEqual([false]);
});
