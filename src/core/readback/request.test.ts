import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { afterEdits, applyChanges, diff, PlanEdits, PlanIndex } from "../plan";
import { siteAsIs, type Recorded } from "../records";
import { editsOf, foundState, operationsBetween } from "../runbook";
import { deviceData, yangText } from "../device-sheet";
import { testId } from "../testing/build-plan";
import { driftBetween } from "./drift";
import { knowledgeOf } from "./knowledge";
import { seenIn } from "./reading";
import { keepReading } from "./keep";
import { readDevice } from "./read-device";
import { afterYang, requestFor } from "./request";

test.each([
  ["the practice", fennelStreet()],
  ["the works", bramblewick()],
] as const)(
  "%s: what devices are told, operation by operation, makes what the operations make",
  (_, plan) => {
    const index = PlanIndex.of(plan);
    let asIs = must(foundState(index, null), "out of the box");
    const said = { yang: 0, settings: 0 };
    for (const operation of operationsBetween(asIs, index)) {
      const after = must(afterEdits(asIs, editsOf(new PlanEdits(asIs.plan), operation)), "it can be done");
      const device = must(plan.device.get(operation.device), "its device");
      const request = must(requestFor(index, asIs, operation), "it can be told");
      said[request.says] += 1;
      const applied = request.says === "settings" ? applyChanges(asIs.plan, request.changes) : null;
      const taken =
        request.says === "yang"
          ? afterYang({ index, asIs, device, ids: () => testId("leg", "new") }, request.text)
          : null;
      const told =
        taken?.ok === true ? taken.value.plan : must(applied?.ok === true ? applied.value : null, "taken");
      expect(diff(told, after.plan)).toEqual([]);
      asIs = after;
    }
    // Ports, ways and addresses go as standard data; trees, scopes, guards and walls have no place in it.
    expect(said.yang).toBeGreaterThan(20);
    expect(said.settings).toBeGreaterThan(10);
  },
);

test("a device that was read is known so from then on, beside what a plan file says of the others", () => {
  const index = PlanIndex.of(fennelStreet());
  const devices = [...index.plan.device.values()].filter(({ kind }) => kind === "switch");
  const [device, other] = [must(devices[0], "a switch"), must(devices[1], "another")];
  const reading = readDevice(index, device, yangText(deviceData(index, device)));
  const ids = () => testId("read", "one");
  const known = { record: [], before: index.plan };
  const kept = must(reading.ok ? keepReading({ index, device, ids }, known, reading.value) : null, "a state");
  const entry = {
    id: testId("entry", "1"),
    at: "2026-11-29T09:00:00.000Z",
    do: "read" as const,
    device: device.id,
    from: "paste" as const,
    saw: seenIn(must(reading.ok ? reading.value : null, "it can be read")),
    changes: kept.changes,
  };
  const record: Recorded[] = [{ by: "Ruth", entry }];
  const asIs = must(siteAsIs(index, [entry]), "a state");
  expect(driftBetween(asIs, index, knowledgeOf([], true))).toEqual([]);

  // Somebody plugged a port otherwise: only that differs.
  const [port] = index.portsOf(other.id);
  const edits = new PlanEdits(index.plan);
  edits.patch("port", must(port, "a port").id, { enabled: false });
  const now = must(afterEdits(index, edits), "a state");
  const second = readDevice(index, other, yangText(deviceData(now, other)));
  const more = must(
    second.ok ? keepReading({ index, device: other, ids }, { record, before: null }, second.value) : null,
    "a state",
  );
  expect(more.changes.map(({ kind, id }) => [kind, id])).toEqual([["port", port?.id]]);
  // Taken back, it is as it was.
  const back = { id: testId("entry", "2"), at: entry.at, do: "takeBack" as const, tick: entry.id };
  const box = must(foundState(index, null), "out of the box");
  expect(diff(must(siteAsIs(index, [entry, back]), "a state").plan, box.plan)).toEqual([]);
});
