import { fennelStreet } from "../../../demo/fennel-street";
import type { Change } from "./change";
import { notesOnly } from "./notes-only";
import { COLLECTION_KINDS, entityOf } from "./index";

const plan = fennelStreet();
/** Another value of the same sort, whatever it is. */
function other(value: unknown): unknown {
  if (typeof value === "string") return `${value}x`;
  if (typeof value === "number") return value + 1;
  if (typeof value === "boolean") return !value;
  return value === null ? "x" : null;
}

test("of every field of every kind in the demo's plan only notes count as notes", () => {
  const notes: string[] = [];
  for (const kind of [...COLLECTION_KINDS, "site"] as const) {
    const entity = kind === "site" ? plan.site : [...plan[kind].values()][0];
    if (entity === undefined) continue;
    for (const [field, value] of Object.entries(entity)) {
      const change = { kind, id: entity.id, before: entity, after: { ...entity, [field]: other(value) } };
      if (notesOnly([change as unknown as Change])) notes.push(`${kind}.${field}`);
    }
  }
  for (const named of notes) expect(named).toMatch(/\.notes$|^port\.note$/);
  expect(notes).toEqual(expect.arrayContaining(["host.notes", "device.notes", "port.note"]));
});

test("a thing that comes or goes is no note, nor is a note beside something else", () => {
  const host = [...plan.host.values()][0];
  if (host === undefined) throw new Error("no host");
  const noted: Change = { kind: "host", id: host.id, before: host, after: { ...host, notes: "x" } };
  const named: Change = {
    kind: "host",
    id: host.id,
    before: host,
    after: { ...host, name: "x", notes: "x" },
  };
  const gone: Change = { kind: "host", id: host.id, before: host, after: null };
  const came: Change = { kind: "host", id: host.id, before: null, after: host };
  expect(entityOf(plan, "host", host.id)).toBe(host);
  expect([notesOnly([]), notesOnly([noted])]).toEqual([true, true]);
  for (const worse of [named, gone, came])
    expect([notesOnly([worse]), notesOnly([noted, worse]), notesOnly([worse, noted])]).toEqual([
      false,
      false,
      false,
    ]);
});
