import type { Tick } from "../records";
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
