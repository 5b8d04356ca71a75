import { nameOf, type PlanIndex } from "../plan";
import type { Recorded, TestCame, TickCame } from "./entry";
import { photosTakenOut } from "./photo";
import { takenBack } from "./visit";

/** What came of a step, in a word or two. */
export const CAME_WORDS: Readonly<Record<TickCame, string>> = {
  done: "done",
  differs: "differs",
  cannot: "can't be done",
};

/** What came of a test, in a word or two. */
export const TEST_CAME_WORDS: Readonly<Record<TestCame, string>> = {
  expected: "as expected",
  otherwise: "otherwise",
  cannot: "can't be read",
};

const FROM_WORDS = {
  box: "gear out of the box",
  plan: "what a plan file says",
  last: "what the last visit left",
} as const;

/** How what is on a device came to be known. */
const READ_WORDS = { paste: "read, pasted", device: "read off the device" } as const;

/** A record as a table, for a spreadsheet: every entry with its time in UTC, those taken back, too. */
export function recordTable(index: PlanIndex, record: readonly Recorded[]): string[][] {
  const gone = takenBack(record.map(({ entry }) => entry));
  const out = photosTakenOut(record);
  const titles = new Map(
    record.flatMap(({ entry }): (readonly [string, string])[] => {
      if (entry.do === "tick") return [[entry.id, entry.step.title]];
      if (entry.do === "test") return [[entry.id, `${entry.test.at}: ${entry.test.does}`]];
      return entry.do === "read" ? [[entry.id, `reading of ${nameOf(index, "device", entry.device)}`]] : [];
    }),
  );
  const back = ({ id }: { readonly id: string }) => (gone.has(id) ? "taken back later" : "");
  const rows = record.map(({ by, entry }): string[] => {
    const { at } = entry;
    switch (entry.do) {
      case "start":
        return [at, by, "visit begins", "", entry.name, FROM_WORDS[entry.from], "", "", "", ""];
      case "end":
        return [at, by, "visit ends", "", "", "", "", entry.note, "", ""];
      case "test": {
        const { at: where, does, expected } = entry.test;
        const shown = entry.photos.filter((id) => !out.has(id)).length;
        const read = [entry.read, entry.says].filter((text) => text !== "").join("; ");
        const came = TEST_CAME_WORDS[entry.came];
        return [
          at,
          by,
          came,
          where,
          does,
          expected,
          read,
          entry.note,
          shown === 0 ? "" : String(shown),
          back(entry),
        ];
      }
      case "takeOut":
        return [at, by, "photo taken out", "", "", "", "", "", "", ""];
      case "read":
        return [
          at,
          by,
          READ_WORDS[entry.from],
          nameOf(index, "device", entry.device),
          "",
          "",
          "",
          "",
          "",
          back(entry),
        ];
      case "takeBack":
        return [at, by, "taken back", "", titles.get(entry.tick) ?? "", "", "", "", "", ""];
      case "tick": {
        const { device, title, values } = entry.step;
        const on = device === null ? "" : nameOf(index, "device", device);
        const words = values.map(([name, value]) => `${name}: ${value}`).join("; ");
        const photos = entry.photos.filter((id) => !out.has(id)).length;
        const shown = photos === 0 ? "" : String(photos);
        return [at, by, CAME_WORDS[entry.came], on, title, words, entry.read, entry.note, shown, back(entry)];
      }
    }
  });
  return [["when", "who", "what", "on", "step", "values", "read", "note", "photos", "stands"], ...rows];
}
