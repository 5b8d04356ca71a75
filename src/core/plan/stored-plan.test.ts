import { fennelStreet } from "../../../demo/fennel-street";
import { COLLECTION_KINDS, LIST_NAMES, type CollectionKind, type Entity } from "./schema/kinds";
import { encodeStored } from "./schema/stored";
import { planInIdOrder } from "./id-order";
import { storedPlan } from "./stored-plan";

// A plan as our own server sends it: taken as it is where all of it fits, and refused as a whole else.

type Row = Readonly<Record<string, unknown>>;
const plan = planInIdOrder(fennelStreet());
const lists: Readonly<Record<string, readonly Row[]>> = Object.fromEntries(
  COLLECTION_KINDS.map((kind) => [
    LIST_NAMES[kind],
    [...plan[kind].values()].map((entity: Entity) => encodeStored(kind, entity as never)),
  ]),
);
const FILE = { site: encodeStored("site", plan.site), ...lists };
const rows = (kind: CollectionKind): readonly Row[] => lists[LIST_NAMES[kind]] ?? [];
const withRows = (kind: CollectionKind, list: unknown) => storedPlan({ ...FILE, [LIST_NAMES[kind]]: list });
const patched = (kind: CollectionKind, fields: Row) =>
  withRows(
    kind,
    rows(kind).map((row, i) => (i === 0 ? { ...row, ...fields } : row)),
  );
const NOBODY = "00000000-0000-4000-8000-000000000001";

test("a whole one is the plan that was written", () => {
  expect(storedPlan(FILE)).toEqual(plan);
});

test("a list that is none, a row that does not fit, a row twice: nothing of it is taken", () => {
  expect(storedPlan({ ...FILE, site: {} })).toBeNull();
  for (const kind of ["host", "port", "zone"] as const) {
    expect(withRows(kind, undefined)).toBeNull();
    expect(patched(kind, { id: 7 })).toBeNull();
    expect(withRows(kind, [...rows(kind), rows(kind)[0]])).toBeNull();
  }
});

test("what points at something that is not there, a port with two cables, a host behind itself", () => {
  expect(patched("segment", { zone: NOBODY })).toBeNull();
  expect(withRows("device", [])).toBeNull();
  const [link] = rows("link");
  expect(withRows("link", [...rows("link"), { ...link, id: NOBODY }])).toBeNull();
  const [host] = rows("host");
  expect(patched("host", { attachment: { at: "behind", host: host?.id } })).toBeNull();
  // Each of these is whole without it.
  expect(patched("host", { attachment: { at: "unplaced" } })?.host.size).toBe(plan.host.size);
  expect(withRows("link", rows("link").slice(1))?.link.size).toBe(plan.link.size - 1);
});
