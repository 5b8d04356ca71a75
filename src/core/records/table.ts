import { nameOf, type PlanIndex } from "../plan";
import type { FaultNamed, Read, Recorded, RecordEntry, TestCame, TestTaken, TickCame } from "./entry";
import type { Issue, Sign } from "./issue";
import type { Close, LabelsPrinted, PhotosFor, Remark } from "./remark";
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

/** How many photos of an entry are still there; empty for none. */
function photosLeft(photos: readonly string[], out: ReadonlySet<string>): string {
  const count = photos.filter((id) => !out.has(id)).length;
  return count === 0 ? "" : String(count);
}

function testCells({ test, came, read, says, note, photos }: TestTaken, out: ReadonlySet<string>): string[] {
  const shown = [read, says].filter((text) => text !== "").join("; ");
  return [TEST_CAME_WORDS[came], test.at, test.does, test.expected, shown, note, photosLeft(photos, out)];
}

const faultCells = ({ fault: { words, mend }, note }: FaultNamed): string[] => [
  "fault found",
  "",
  words,
  mend,
  "",
  note,
  "",
];

const issueCells = ({ sheet, note }: Issue): string[] => {
  const { name, recipient, revision, check, stood } = sheet;
  const values = [`revision ${revision}`, ...(recipient === "" ? [] : [`for ${recipient}`]), check];
  return ["sheet issued", "", name, values.join("; "), stood.join("; "), note, ""];
};
const signCells = ({ as, name, day, note }: Sign, sheet: string): string[] => [
  `sheet ${as}`,
  "",
  sheet,
  `${name}, ${day}`,
  "",
  note,
  "",
];

/** Whose a remark is, in words. */
export const REMARK_FOR_WORDS = { us: "ours", customer: "the customer's" } as const;

/** What a remark is about; empty for the site as a whole. */
const remarkAbout = ({ about }: Remark): string => about?.name ?? "";

function remarkCells(remark: Remark, out: ReadonlySet<string>): string[] {
  const { isOpen, due, text, photos } = remark;
  const what = isOpen ? "open point" : "remark";
  const day = due === null ? "" : `until ${due}`;
  return [what, remarkAbout(remark), text, day, REMARK_FOR_WORDS[remark.for], "", photosLeft(photos, out)];
}
const closeCells = ({ note }: Close, remark: string): string[] => ["seen to", "", remark, "", "", note, ""];
const photosForCells = ({ for: whose }: PhotosFor, of: string): string[] => [
  `photos are ${REMARK_FOR_WORDS[whose]}`,
  "",
  of,
  ...["", "", "", ""],
];
const labelsCells = ({ printed }: LabelsPrinted): string[] => [
  "labels printed",
  "",
  printed.map(([label]) => label).join(" "),
  ...["", "", "", ""],
];

const readCells = (index: PlanIndex, { from, device }: Read): string[] => {
  const none = Array.from({ length: CELLS_AFTER_DEVICE }, () => "");
  return [READ_WORDS[from], nameOf(index, "device", device), ...none];
};
/** Between the device and whether it stands. */
const CELLS_AFTER_DEVICE = 5;

/** What another entry calls this one. */
function titleOf(index: PlanIndex, entry: RecordEntry): string {
  switch (entry.do) {
    case "tick":
      return entry.step.title;
    case "test":
      return `${entry.test.at}: ${entry.test.does}`;
    case "fault":
      return entry.fault.words;
    case "issue":
      return entry.sheet.name;
    case "sign":
      return `${entry.as} by ${entry.name}`;
    case "read":
      return `reading of ${nameOf(index, "device", entry.device)}`;
    case "remark":
      return entry.text;
    default:
      return "";
  }
}

/** A record as a table, for a spreadsheet: every entry with its time in UTC, those taken back, too. */
export function recordTable(index: PlanIndex, record: readonly Recorded[]): string[][] {
  const gone = takenBack(record.map(({ entry }) => entry));
  const out = photosTakenOut(record);
  const titles = new Map(record.map(({ entry }) => [entry.id, titleOf(index, entry)]));
  const back = ({ id }: { readonly id: string }) => (gone.has(id) ? "taken back later" : "");
  const rows = record.map(({ by, entry }): string[] => {
    const { at } = entry;
    switch (entry.do) {
      case "start":
        return [at, by, "visit begins", "", entry.name, FROM_WORDS[entry.from], "", "", "", ""];
      case "end":
        return [at, by, "visit ends", "", "", "", "", entry.note, "", ""];
      case "test":
        return [at, by, ...testCells(entry, out), back(entry)];
      case "fault":
        return [at, by, ...faultCells(entry), back(entry)];
      case "issue":
        return [at, by, ...issueCells(entry), back(entry)];
      case "sign":
        return [at, by, ...signCells(entry, titles.get(entry.issue) ?? ""), back(entry)];
      case "remark":
        return [at, by, ...remarkCells(entry, out), back(entry)];
      case "close":
        return [at, by, ...closeCells(entry, titles.get(entry.remark) ?? ""), back(entry)];
      case "photosFor":
        return [at, by, ...photosForCells(entry, titles.get(entry.entry) ?? ""), ""];
      case "labels":
        return [at, by, ...labelsCells(entry), back(entry)];
      case "takeOut":
        return [at, by, "photo taken out", "", "", "", "", "", "", ""];
      case "read":
        return [at, by, ...readCells(index, entry), back(entry)];
      case "takeBack":
        return [at, by, "taken back", "", titles.get(entry.tick) ?? "", "", "", "", "", ""];
      case "tick": {
        const { device, title, values } = entry.step;
        const on = device === null ? "" : nameOf(index, "device", device);
        const words = values.map(([name, value]) => `${name}: ${value}`).join("; ");
        const shown = photosLeft(entry.photos, out);
        return [at, by, CAME_WORDS[entry.came], on, title, words, entry.read, entry.note, shown, back(entry)];
      }
    }
  });
  return [["when", "who", "what", "on", "step", "values", "read", "note", "photos", "stands"], ...rows];
}
