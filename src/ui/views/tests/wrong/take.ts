import { v7 } from "uuid";
import { askKey, type Asked } from "@/core/diagnosis";
import type { TestCame, TestTaken } from "@/core/records";

/** A reading that diagnosis asked for, as an entry of the record; `expected` is what it has to be, in words. */
export const takenEntry = (
  { ask, place, at, does }: Pick<Asked, "ask" | "place" | "at" | "does">,
  expected: string,
  taken: { readonly came: TestCame; readonly read: string; readonly says: string },
): TestTaken => ({
  id: v7(),
  at: new Date().toISOString(),
  do: "test",
  test: { id: askKey(ask), place, at, does, expected, proves: [] },
  note: "",
  photos: [],
  ...taken,
});
