import { render, screen, within } from "@testing-library/react";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { packFor, packStudy, READERS, type Block, type Part } from "@/core/pack";
import type { Plan } from "@/core/plan";
import type { Handed, NotHanded } from "@/http/contracts/answers";
import { HandedView } from "./HandedView";
import { NotHandedView } from "./NotHandedView";

jest.mock("@/ui/frame/GroundSwitch", () => ({ GroundSwitch: () => null }));

const made = "2026-11-30T09:00:00.000Z";
const packOf = (plan: Plan, reader: (typeof READERS)[number]) =>
  packFor(
    packStudy({ plan, revision: 7, today: "2026-11-30", record: [], sheet: null, before: null, made }),
    reader,
    ["drawing"],
  );
const PLANS = [lockkeepersHouse(), fennelStreet(), bramblewick()];

function handed(part: Part, more: Partial<Handed> = {}): Handed {
  const { block, parts, reader } = packOf(fennelStreet(), "customer");
  return {
    site: "Fennel Street Veterinary Practice",
    letter: "B As built",
    endsAt: "2027-01-01T00:00:00Z",
    replacedBy: null,
    photos: {},
    ...{ reader, block, part },
    parts: parts.map(({ key, title }) => ({ key, title })),
    ...more,
  };
}

/** Texts that a block says, wherever in it. */
function textsOf(block: Block): readonly string[] {
  switch (block.is) {
    case "text":
    case "heading":
    case "subheading":
      return [block.text];
    case "facts":
      return block.rows.flat();
    case "table":
      return [
        ...block.heads,
        ...block.rows.flat().map((cell) => (typeof cell === "string" ? cell : cell.text)),
      ];
    case "photo":
      return [block.caption];
    case "cabinets":
    case "drawing":
      return [];
  }
}
const plain = (text: string): string => text.replace(/\s+/g, " ").trim();

afterEach(() => jest.restoreAllMocks());

test.each(READERS)("every word of every part of the demo's papers %s stands on the page", (reader) => {
  const complained = jest.spyOn(console, "error");
  for (const plan of PLANS)
    for (const part of packOf(plan, reader).parts) {
      const { container, unmount } = render(<HandedView linkKey="k" handed={handed(part)} />);
      const shown = plain(container.textContent ?? "").replaceAll(" ", "");
      for (const text of part.blocks.flatMap(textsOf))
        if (!shown.includes(plain(text).replaceAll(" ", "")))
          throw new Error(`${plan.site.name}, ${part.title}: ${text}`);
      const cabinets = part.blocks.flatMap((block) => (block.is === "cabinets" ? block.cabinets : []));
      expect(screen.queryAllByRole("img", { name: / units: / })).toHaveLength(cabinets.length);
      unmount();
    }
  expect(complained).not.toHaveBeenCalled();
});

test("parts are led to by the link's own address, and a sheet that was replaced says by which", () => {
  const [cover] = packOf(fennelStreet(), "customer").parts;
  if (cover === undefined) throw new Error("no cover");
  render(<HandedView linkKey="abc" handed={handed(cover, { replacedBy: "C" })} />);
  const parts = within(screen.getByRole("navigation", { name: "Parts" }));
  const links = parts.getAllByRole("link").map((link) => link.getAttribute("href"));
  expect(links).toContain("/handed?key=abc&part=networks");
  expect(parts.getByRole("link", { current: "page" }).textContent).toBe(cover.title);
  expect(screen.getByRole("note").textContent).toContain("A later sheet, C, stands in place of this one.");
});

test("a photo stands with its caption, one that can't be had is said", () => {
  const part: Part = {
    key: "work",
    title: "Work",
    blocks: [
      { is: "photo", photo: "one", caption: "Cabinet, open" },
      { is: "photo", photo: "two", caption: "Cabinet, closed" },
    ],
  };
  render(<HandedView linkKey="k" handed={handed(part, { photos: { one: "AAAA" } })} />);
  expect(screen.getByRole("img", { name: "Cabinet, open" }).getAttribute("src")).toBe(
    "data:image/jpeg;base64,AAAA",
  );
  expect(screen.getByText("The photo can’t be had.")).not.toBeNull();
});

test.each<[NotHanded, RegExp]>([
  ["unknown", /not complete, or what it led to is gone/],
  ["withdrawn", /was withdrawn/],
  ["over", /last day of this link is over/],
  ["maker", /does not work on this site any more/],
  ["sheet-withdrawn", /what it says is not what is there/],
  ["made-anew", /made anew from a file/],
  ["too-large", /too large to be read here/],
])("a link that shows nothing, %s, says why and what to do", (why, words) => {
  render(<NotHandedView why={why} />);
  expect(screen.getByText(words).textContent).toContain("Ask whoever sent it");
});
