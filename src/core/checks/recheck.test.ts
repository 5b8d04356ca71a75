import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { ipv4 } from "../address";
import { must } from "../kernel";
import { applyChanges, Draft, PlanIndex, vid as asVid, type CollectionKind, type EntityOf, type Plan } from "../plan";
import { addDevice, addSegment, connectPorts, paintPorts, removeDevice, removeHost, removeSegment, type Bench } from "../planners";
import { testId } from "../testing/build-plan";
import { listFindings, recheck, runChecks } from ".";

interface Edit { readonly what: number; readonly a: number; readonly b: number; readonly vid: number }

const VIDS = [10, 20, 30, 60, 90, 110, 140, 777];
const anyEdit: fc.Arbitrary<Edit> = fc.record({ what: fc.nat(13), a: fc.nat(9999), b: fc.nat(9999), vid: fc.constantFrom(...VIDS) });
const pick = <K extends CollectionKind>(draft: Draft, kind: K, n: number): EntityOf<K> | undefined => {
  const all = draft.all(kind);
  return all[n % Math.max(1, all.length)];
};

/** One edit of a kind that a person makes; what does not fit the plan does nothing. */
function make(bench: Bench, { what, a, b, vid }: Edit): void {
  const { draft } = bench;
  const number = must(asVid(vid), "a VID");
  const [port, host, segment] = [pick(draft, "port", a), pick(draft, "host", a), pick(draft, "segment", a)];
  switch (what) {
    case 0: if (port !== undefined) paintPorts(draft, [port.id], { role: "access", vid: number }); return;
    case 1: if (port !== undefined) draft.patch("port", port.id, { tagged: [...new Set([...port.tagged, number])] }); return;
    case 2: if (port !== undefined) draft.patch("port", port.id, { tagged: port.tagged.slice(1) }); return;
    case 3: if (port !== undefined) draft.patch("port", port.id, { enabled: !port.enabled }); return;
    case 4: if (port !== undefined) draft.patch("port", port.id, { pvid: number, untagged: b % 2 === 0 ? [number] : [] }); return;
    case 5: if (host !== undefined) draft.patch("host", host.id, { ipv4: ipv4(0x0a180a00 + (b % 512)), manner: b % 3 === 0 ? "reserved" : "typed" }); return;
    case 6: if (host !== undefined) draft.patch("host", host.id, { tag: b % 2 === 0 ? null : number, segment: pick(draft, "segment", b)?.id ?? null }); return;
    case 7: if (host !== undefined) draft.patch("host", host.id, { attachment: b % 3 === 0 ? { at: "unplaced" } : { at: "port", port: pick(draft, "port", b)?.id ?? "" } }); return;
    case 8: if (segment !== undefined) draft.patch("segment", segment.id, { planned: b % 300, dns: pick(draft, "segment", b)?.dns ?? [] }); return;
    case 9: { const link = pick(draft, "link", a); if (link !== undefined) draft.remove("link", link.id); return; }
    case 10: connectPorts(bench, port?.id ?? "", pick(draft, "port", b)?.id ?? ""); return;
    case 11: addSegment(bench, { name: `New ${a}`, vid: b % 2 === 0 ? String(vid) : "", prefix: "", zone: "" }); return;
    case 12: addDevice(bench, { model: b % 2 === 0 ? "switch-8-poe" : "access-point", name: `Gear ${a}`, place: "" }); return;
    default: {
      const device = pick(draft, "device", a);
      if (b % 4 === 0 && device !== undefined) removeDevice(draft, device.id);
      else if (b % 4 === 1 && segment !== undefined) removeSegment(draft, segment.id);
      else if (b % 4 === 2 && host !== undefined) removeHost(draft, host.id);
      else { const wall = pick(draft, "wall", a); if (wall !== undefined) draft.remove("wall", wall.id); }
    }
  }
}

test.each([["office", fennelStreet()], ["home", lockkeepersHouse()], ["industrial", bramblewick()]])("%s: after any edits, rechecking gives what checking everything anew gives", (_, plan: Plan) => {
  const first = PlanIndex.of(plan);
  const found = runChecks(first);
  let changed = 0;
  fc.assert(fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 12 }), (edits) => {
    let [index, findings] = [first, found];
    for (const [i, edit] of edits.entries()) {
      let n = 0;
      const draft = new Draft(index.plan);
      make({ draft, index, ids: () => testId("made", `${i} ${(n += 1)} ${edit.a}`) }, edit);
      const changes = draft.changes();
      const applied = applyChanges(index.plan, changes);
      if (!applied.ok) continue;
      index = index.derive(applied.value, changes);
      findings = recheck(findings, index, changes);
      changed += changes.length;
    }
    const anew = runChecks(PlanIndex.of(index.plan));
    // The order of rows in a plan differs with the way it came about; what is found must not.
    const keys = (of: typeof anew) => listFindings(of).map((f) => `${f.severity} ${f.key} ${JSON.stringify(f.data, (_k, v: unknown) => (typeof v === "bigint" ? String(v) : v))}`).sort();
    expect(keys(findings)).toEqual(keys(anew));
  }), { numRuns: 120, seed: 33 });
  expect(changed).toBeGreaterThan(200);
});
