import { bramblewick } from "../../demo/bramblewick";
import { fennelStreet } from "../../demo/fennel-street";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { INKS, paperFonts, readPdf } from "../../tests/support/paper";
import { formatAddress } from "@/core/address";
import { packFor, packStudy, READERS, type Reader } from "@/core/pack";
import { PlanEdits, applyChanges, type Plan } from "@/core/plan";
import { must } from "@/core/kernel";
import { documentOf } from "./document";
import { pdfOf } from "./pdf";

const FONTS = paperFonts();
const packOf = (plan: Plan, reader: Reader, leftOut: readonly string[] = []) =>
  packFor(
    packStudy({
      plan,
      revision: 7,
      today: "2026-11-30",
      record: [],
      sheet: null,
      before: null,
      made: "2026-11-30T09:00:00.000Z",
    }),
    reader,
    leftOut,
  );
const GIVEN = { size: "A4", inks: INKS, drawing: null, photos: new Map<string, string>() } as const;
const squeezed = (text: string): string => text.replace(/\s+/g, "");

test.each([fennelStreet(), lockkeepersHouse(), bramblewick()])(
  "$site.name: in the PDF for the next installer every device, VLAN and address is found",
  async (plan) => {
    const pack = packOf(plan, "installer");
    const bytes = await pdfOf(documentOf(pack, GIVEN), FONTS);
    const printed = readPdf("pdftotext", bytes);
    const text = squeezed(printed);
    const wanted = [
      ...[...plan.device.values()].map(({ name }) => name),
      ...[...plan.vlan.values()].flatMap(({ vid, name }) => [String(vid), name]),
      ...[...plan.host.values()].flatMap(({ name, ipv4, ipv6 }) => [
        name,
        ...[ipv4, ipv6].flatMap((address) => (address === null ? [] : [formatAddress(address)])),
      ]),
      ...[...plan.interface.values()].flatMap(({ addresses4, addresses6 }) =>
        [...addresses4, ...addresses6].map(formatAddress),
      ),
    ];
    expect(wanted.filter((words) => !text.includes(squeezed(words)))).toEqual([]);
    // A title block with its page on each of them.
    const pages = Number(/Pages:\s+(\d+)/.exec(readPdf("pdfinfo", bytes))?.[1]);
    const numbers = Array.from({ length: pages }, (_, at) => `${at + 1} of ${pages}`);
    expect(numbers.filter((number) => !printed.includes(number))).toEqual([]);
  },
  60_000,
);

test("Letter and A4 are the sizes of their pages, upright and wide", async () => {
  const sizes = async (size: "A4" | "Letter") => {
    const pack = packOf(lockkeepersHouse(), "electrician");
    const bytes = await pdfOf(documentOf(pack, { ...GIVEN, size }), FONTS);
    const all = readPdf("pdfinfo", bytes, "-f", "1", "-l", "99").matchAll(/size:\s+([\d.]+) x ([\d.]+)/g);
    return [
      ...new Set(
        [...all].map(([, width, height]) => `${Math.round(Number(width))}x${Math.round(Number(height))}`),
      ),
    ];
  };
  expect((await sizes("A4")).sort()).toEqual(["595x842", "842x595"]);
  expect((await sizes("Letter")).sort()).toEqual(["612x792", "792x612"]);
});

test("every part is a bookmark, and a part alone is a file of its own", async () => {
  const pack = packOf(lockkeepersHouse(), "customer");
  const whole = documentOf(pack, GIVEN);
  const outlines = JSON.stringify(whole.content).match(/"outlineText":"[^"]*"/g) ?? [];
  for (const { title } of pack.parts) expect(outlines).toContain(`"outlineText":${JSON.stringify(title)}`);
  for (const part of pack.parts) {
    const bytes = await pdfOf(documentOf({ ...pack, parts: [part] }, GIVEN), FONTS);
    expect(squeezed(readPdf("pdftotext", bytes))).toContain(squeezed(part.title));
  }
});

test("names in other scripts are set and found; what no font has is counted and said", async () => {
  const plan = lockkeepersHouse();
  const edits = new PlanEdits(plan);
  const names = ["Ołówek Łódź", "Кабинет", "Αίθουσα", "Phòng họp", "会議室 1"];
  [...plan.device.values()].slice(0, names.length).forEach(({ id }, at) => {
    edits.patch("device", id, { name: names[at] ?? "" });
  });
  const applied = applyChanges(plan, edits.changes());
  const now = must(applied.ok ? applied.value : null, "renamed");
  const count = Math.min(names.length, plan.device.size);
  const text = squeezed(readPdf("pdftotext", await pdfOf(documentOf(packOf(now, "customer"), GIVEN), FONTS)));
  for (const name of names.slice(0, Math.min(count, 4))) expect(text).toContain(squeezed(name));
  expect(text.includes("???1")).toBe(count === 5);
  expect(text.includes(squeezed("characters of scripts that these papers have no letters for"))).toBe(
    count === 5,
  );
});

test("how much is written is told in whole percents, each once", async () => {
  const told: number[] = [];
  await pdfOf(documentOf(packOf(lockkeepersHouse(), "customer"), GIVEN), FONTS, (done) => told.push(done));
  expect(told.at(-1)).toBe(100);
  expect(told).toEqual([...new Set(told)].sort((a, b) => a - b));
});

test("nothing of a pack is asked of a server: what is not given is not there", async () => {
  for (const reader of READERS) {
    const pack = packOf(lockkeepersHouse(), reader);
    expect(JSON.stringify(documentOf(pack, GIVEN).content)).not.toMatch(/https?:/);
  }
});
