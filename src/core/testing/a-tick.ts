import type { TestTaken, Tick } from "../records";
import { testId } from "./build-plan";

/** A tick of a step that saved something, with what is different about it. */
export const aTick = (fields: Partial<Tick>): Tick => ({
  id: testId("tick", JSON.stringify(fields)),
  at: "2026-11-29T09:00:00.000Z",
  do: "tick",
  after: null,
  step: { kind: "save", device: null, page: null, title: "Save", values: [] },
  came: "done",
  read: "",
  note: "",
  photos: [],
  changes: [],
  ...fields,
});

/** A test at a port of the house, taken. */
export const aTestTaken = (fields: Partial<TestTaken>): TestTaken => ({
  id: testId("test taken", JSON.stringify(fields)),
  at: "2026-11-29T09:30:00.000Z",
  do: "test",
  test: {
    id: "lease port 4",
    place: "Hall",
    at: "Hall switch port 4",
    does: "Plug in a laptop that asks for its address.",
    expected: "172.19.20.60 to 172.19.20.99, Household",
    proves: null,
  },
  came: "expected",
  read: "",
  says: "",
  note: "",
  photos: [],
  ...fields,
});
