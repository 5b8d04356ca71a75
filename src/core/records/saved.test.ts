import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { Study, type Reading } from "../diagnosis";
import { must } from "../kernel";
import { afterEdits, diff, PlanEdits, PlanIndex, type Change } from "../plan";
import { asClient, probe } from "../probe";
import { foundState } from "../runbook";
import { aTick } from "../testing/a-tick";
import { testId } from "../testing/build-plan";
import type { RecordEntry, Tick } from "./entry";
import { savedBefore } from "./saved";

const index = PlanIndex.of(lockkeepersHouse());
const gets = (on: PlanIndex, port: string) =>
  probe(on, asClient({ at: "port", port, tag: null }, { to: "address" }), () => "").lease?.segment ?? null;

/** The house as it was while a port was in another VLAN, where a laptop got another address. */
const [before, port] = must(
  [...index.plan.port.values()].flatMap((port): [PlanIndex, string][] =>
    [...index.plan.vlan.values()].flatMap(({ vid }) => {
      const edits = new PlanEdits(index.plan);
      if (port.tagged.length > 0 || port.pvid === null || port.pvid === vid || !port.enabled) return [];
      edits.patch("port", port.id, { pvid: vid, untagged: [vid] });
      const state = afterEdits(index, edits);
      const got = state === null ? null : gets(state, port.id);
      return state !== null && got !== null && gets(index, port.id) !== null && got !== gets(index, port.id)
        ? [[state, port.id] as [PlanIndex, string]]
        : [];
    }),
  )[0],
  "a port that was elsewhere once",
);
const device = must(index.plan.port.get(port), "the port").device;
const box = must(foundState(index, null), "out of the box");
const step = (kind: Tick["step"]["kind"], on: string): Tick["step"] => ({
  kind,
  device: on,
  page: kind === "do" ? "vlans" : null,
  title: kind,
  values: [],
});
let number = 0;
const tick = (kind: Tick["step"]["kind"], changes: readonly Change[] = [], on = device): RecordEntry =>
  aTick({ id: testId("tick", String((number += 1))), step: step(kind, on), changes });

const set = tick("do", diff(box.plan, before.plan));
const moved = tick("do", diff(before.plan, index.plan));
const wrong: Reading = {
  id: "1",
  ask: { what: "try", question: asClient({ at: "port", port, tag: null }, { to: "address" }) },
  seen: { is: "not planned" },
};

test("a device that was worked on after its last save comes back as at that, and that is tried", () => {
  const entries = [set, tick("save"), moved];
  const former = must(savedBefore(index, entries, device), "a save");
  expect(former.words).toBe("as it was at its last save");
  const state = must(former.state(), "a state");
  expect(gets(state, port)).toBe(gets(before, port));
  const study = new Study(index, { formerly: (id) => savedBefore(index, entries, id) });
  const found = study.diagnose([wrong]).candidates.map(({ suspect }) => suspect.words);
  const name = must(index.plan.device.get(device), "it").name;
  expect(found).toContain(`${name} was not saved: it restarted as it was at its last save`);
  expect(new Study(index).diagnose([wrong]).candidates.map(({ suspect }) => suspect.words)).not.toContain(
    `${name} was not saved: it restarted as it was at its last save`,
  );
});

test("where everything was saved the last save may not have taken; one that is taken back is none", () => {
  const last = tick("save");
  const entries = [set, tick("save"), moved, last];
  const former = must(savedBefore(index, entries, device), "the save before");
  expect(former.words).toBe("as it was before its last save");
  expect(gets(must(former.state(), "a state"), port)).toBe(gets(before, port));
  const back: RecordEntry = {
    id: testId("back", "one"),
    at: "2026-11-30T09:00:00.000Z",
    do: "takeBack",
    tick: last.id,
  };
  expect(savedBefore(index, [...entries, back], device)?.words).toBe("as it was at its last save");
});

test("without a save of that device nothing is known but the box", () => {
  const other = must(
    [...index.plan.device.keys()].find((id) => id !== device),
    "another device",
  );
  expect(savedBefore(index, [], device)).toBeNull();
  expect(savedBefore(index, [set, tick("save", [], other), moved], device)).toBeNull();
  expect(savedBefore(index, [set, moved, tick("save")], device)).toBeNull();
});
