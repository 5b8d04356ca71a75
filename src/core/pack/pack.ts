import { caution, quiet, text, under } from "./blocks";
import { cautionsOf } from "./cautions";
import {
  cableTestBlocks,
  changeBlocks,
  dueBlocks,
  findingBlocks,
  plainDueBlocks,
  plainFindingBlocks,
  plainTestBlocks,
  remarkBlocks,
  runbookBlocks,
  sheetBlocks,
  testBlocks,
} from "./done";
import { type Block, type Pack, type PackStudy, type Part, type Reader } from "./model";
import {
  plainSegmentBlocks,
  plainWirelessBlocks,
  registerBlocks,
  scopeBlocks,
  segmentBlocks,
  wirelessBlocks,
} from "./networks";
import {
  cabinetBlocks,
  cableBlocks,
  dropBlocks,
  gearBlocks,
  lineBlocks,
  plainLineBlocks,
  portBlocks,
  powerBlocks,
  socketBlocks,
  whereBlocks,
} from "./places";
import { deviceBlocks, plainWallBlocks, ruleBlocks, signInBlocks, wallBlocks, wayInBlocks } from "./security";
import { titleBlock } from "./title";
import { linesOf } from "./words";

type Make = (study: PackStudy, reader: Reader) => readonly Block[];
interface PartOf {
  readonly key: string;
  readonly title: string;
  /** What each reader gets of it; nobody else gets any of it. */
  readonly for: Partial<Record<Reader, Make>>;
}

/** A part that all get alike. */
const all = (make: Make): PartOf["for"] => ({ installer: make, customer: make, electrician: make });

const paragraphs = (words: string): Block[] => linesOf(words).map(text);

/** What was agreed, whom it is for, how it stood. */
const cover: Make = ({ index, sheet }, reader) => {
  const { firm, customer, agreed, calls } = index.plan.site.paper;
  const facts = (name: string, words: string): (readonly [string, string])[] =>
    linesOf(words).length === 0 ? [] : [[name, linesOf(words).join("\n")]];
  const rows = [
    ...facts("For", sheet === null ? "" : sheet.issue.sheet.recipient),
    ...facts("Customer", customer),
    ...facts("Planned and built by", firm),
    ...facts("How it stood", sheet === null ? "" : sheet.issue.sheet.stood.join("; ")),
    ...facts("Remarks", sheet === null ? "" : sheet.issue.note),
  ];
  return [
    ...(rows.length === 0 ? [] : [{ is: "facts" as const, rows }]),
    ...under("What was agreed", paragraphs(agreed)),
    ...(reader === "electrician" ? [] : under("When something fails", paragraphs(calls))),
    quiet("No word, key or secret stands in these papers: they say at most where one is kept."),
  ];
};

const cautions: Make = ({ index }, reader) => cautionsOf(index, reader).map(caution);

const PARTS: readonly PartOf[] = [
  { key: "cover", title: "Cover and what was agreed", for: all(cover) },
  { key: "cautions", title: "Cautions", for: all(cautions) },
  { key: "drawing", title: "Drawing", for: all(() => [{ is: "drawing" }]) },
  {
    key: "cabinets",
    title: "Cabinets and feeds",
    for: { installer: cabinetBlocks, electrician: cabinetBlocks },
  },
  { key: "where", title: "What stands where", for: { customer: whereBlocks } },
  { key: "networks", title: "Networks", for: { customer: plainSegmentBlocks } },
  { key: "segments", title: "VLANs and segments", for: { installer: segmentBlocks } },
  { key: "scopes", title: "Scopes and reservations", for: { installer: scopeBlocks } },
  { key: "register", title: "Address register", for: { installer: registerBlocks } },
  { key: "lines", title: "Internet lines", for: { installer: lineBlocks, customer: plainLineBlocks } },
  {
    key: "ports",
    title: "Port schedules",
    for: { installer: portBlocks, electrician: socketBlocks },
  },
  {
    key: "cables",
    title: "Cable schedule",
    for: { installer: cableBlocks, electrician: cableBlocks },
  },
  { key: "sockets", title: "Sockets", for: { electrician: dropBlocks } },
  { key: "cable-tests", title: "Cable tests", for: { electrician: cableTestBlocks } },
  { key: "power", title: "Power over the cable", for: { installer: powerBlocks, electrician: powerBlocks } },
  {
    key: "wireless",
    title: "Wireless",
    for: { installer: wirelessBlocks, customer: plainWirelessBlocks },
  },
  {
    key: "walls",
    title: "Walls in words",
    for: { installer: wallBlocks, customer: plainWallBlocks },
  },
  { key: "rules", title: "Rules", for: { installer: ruleBlocks } },
  { key: "ways-in", title: "Ways in", for: { installer: wayInBlocks } },
  { key: "sign-in", title: "Sign-in", for: { installer: signInBlocks } },
  { key: "devices", title: "Settings of each device", for: { installer: deviceBlocks } },
  { key: "gear", title: "Gear register", for: { installer: gearBlocks } },
  { key: "tests", title: "Test record", for: { installer: testBlocks, customer: plainTestBlocks } },
  { key: "runbook", title: "Runbook as done", for: { installer: runbookBlocks } },
  {
    key: "findings",
    title: "Accepted findings",
    for: { installer: findingBlocks, customer: plainFindingBlocks },
  },
  { key: "due", title: "What falls due", for: { installer: dueBlocks, customer: plainDueBlocks } },
  { key: "remarks", title: "Remarks and photos", for: all(remarkBlocks) },
  { key: "changes", title: "List of changes", for: { installer: changeBlocks, customer: sheetBlocks } },
];

/** The parts that a reader gets, by key and title, in their order. */
export const partsFor = (reader: Reader): readonly { readonly key: string; readonly title: string }[] =>
  PARTS.filter((part) => part.for[reader] !== undefined).map(({ key, title }) => ({ key, title }));

/**
 * The papers of a state for a reader: the parts in which something stands, without those left out by their
 * keys. What is the office's own is in none of them.
 */
export function packFor(study: PackStudy, reader: Reader, leftOut: readonly string[] = []): Pack {
  const parts = PARTS.flatMap((part): Part[] => {
    const make = part.for[reader];
    if (make === undefined || leftOut.includes(part.key)) return [];
    const blocks = make(study, reader);
    return blocks.length === 0 ? [] : [{ key: part.key, title: part.title, blocks }];
  });
  return { reader, block: titleBlock(study, reader), parts };
}
