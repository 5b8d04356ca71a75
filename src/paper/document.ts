import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import type { Block, Pack, Part } from "@/core/pack";
import { cabinetPicture } from "./cabinets";
import { inPaperFonts, sheetsOf, type Picture } from "./drawing";
import { USUAL_FONT } from "./faces";
import { INK, QUIET_INK, type Inks } from "./inks";
import { MARGINS, roomOn, type Page, type Size } from "./page";
import { Setter } from "./setter";
import { tableContent, wantsWide } from "./table";
import { titleBlock } from "./title-block";

/** What a pack is set with, beside what it says. */
export interface SetWith {
  readonly size: Size;
  readonly inks: Inks;
  /** The drawing; null where there is none. */
  readonly drawing: Picture | null;
  /** Photos by their ids, as data addresses of JPEGs; those that can't be had are left out. */
  readonly photos: ReadonlyMap<string, string>;
}

/** So many rows, and a part begins on a page of its own. */
const LONG = 12;
const PHOTO = { width: 240, height: 180 } as const;
const CABINET_WIDE = 165;
const CABINETS_SIDE_BY_SIDE = 3;

/** One part at a time, in the room of its pages. */
class PartSetter {
  readonly setter: Setter;
  readonly #with: SetWith;
  readonly #page: Page;
  readonly #part: Part;

  constructor(part: Part, page: Page, setter: Setter, given: SetWith) {
    this.#part = part;
    this.#page = page;
    this.setter = setter;
    this.#with = given;
  }

  content(isFirst: boolean): Content[] {
    const { key, title, blocks } = this.#part;
    const head: Content = {
      ...this.setter.text(title),
      fontSize: 16,
      bold: true,
      margin: [0, isFirst ? 0 : 10, 0, 6],
      id: key,
      outline: true,
      outlineText: title,
      tocItem: true,
      ...(key === "cover" ? { outlineExpanded: true } : {}),
    };
    const all: Content[] = [head];
    for (let at = 0; at < blocks.length; at += 1) {
      const block = blocks[at];
      const next = blocks[at + 1];
      if (block === undefined) continue;
      if ((block.is === "heading" || block.is === "subheading") && next?.is === "table") {
        all.push(...this.#table(next, this.#above(block)));
        at += 1;
      } else all.push(...this.#block(block));
    }
    return all;
  }

  #above({ is, text }: { readonly is: "heading" | "subheading"; readonly text: string }): Content {
    return is === "heading" ? this.#heading(text) : this.#subheading(text);
  }

  #subheading(text: string): Content {
    return { ...this.setter.text(text), fontSize: 9, bold: true, margin: [0, 4, 0, 1] };
  }

  #heading(text: string): Content {
    return {
      ...this.setter.text(text),
      fontSize: 11,
      bold: true,
      color: INK,
      margin: [0, 8, 0, 2],
      outline: true,
      outlineText: text,
      outlineParentId: this.#part.key,
    };
  }

  #table(table: Extract<Block, { is: "table" }>, above: Content | null): Content[] {
    return tableContent(this.setter, table, roomOn(this.#page)[0], above);
  }

  #block(block: Block): Content[] {
    switch (block.is) {
      case "heading":
      case "subheading":
        return [this.#above(block)];
      case "text":
        return [this.#text(block)];
      case "table":
        return this.#table(block, null);
      case "facts":
        return [
          {
            layout: "noBorders",
            margin: [0, 0, 0, 8],
            table: {
              widths: [110, "*"],
              body: block.rows.map(([name, value]) => [this.setter.quiet(name), this.setter.text(value)]),
            },
          },
        ];
      case "cabinets":
        return this.#cabinets(block);
      case "drawing":
        return this.#drawing();
      case "photo":
        return this.#photo(block);
    }
  }

  #text({ text, tone }: Extract<Block, { is: "text" }>): Content {
    const set = this.setter.text(text);
    if (tone === "quiet") return { ...set, color: QUIET_INK, fontSize: 8, margin: [0, 1, 0, 4] };
    if (tone === "plain") return { ...set, margin: [0, 1, 0, 4] };
    return {
      margin: [0, 2, 0, 4],
      layout: {
        hLineWidth: () => 0,
        vLineWidth: (at) => (at === 0 ? 2.5 : 0),
        vLineColor: () => INK,
        paddingLeft: () => 8,
      },
      table: { widths: ["*"], dontBreakRows: true, body: [[set]] },
    };
  }

  #cabinets({ cabinets }: Extract<Block, { is: "cabinets" }>): Content[] {
    const pictures = cabinets.map(cabinetPicture);
    const rows: Content[] = [];
    const [, room] = roomOn(this.#page);
    for (let at = 0; at < pictures.length; at += CABINETS_SIDE_BY_SIDE)
      rows.push({
        margin: [0, 4, 0, 8],
        columnGap: 10,
        columns: pictures.slice(at, at + CABINETS_SIDE_BY_SIDE).map(({ svg, height, width }) => {
          const scale = Math.min(CABINET_WIDE / width, (room - 40) / height);
          return { svg: inPaperFonts(svg), width: width * scale, height: height * scale };
        }),
      });
    return rows;
  }

  #drawing(): Content[] {
    const { drawing } = this.#with;
    if (drawing === null) return [this.setter.quiet("There is no gear to draw.") as Content];
    const [width, height] = roomOn(this.#page);
    const room = [width, height - 34] as const;
    const sheets = sheetsOf(drawing, room);
    return sheets.flatMap(({ svg, width: w, height: h }, at): Content[] => {
      const scale = Math.min(1, room[0] / w, room[1] / h);
      const of = `Part ${at} of ${sheets.length - 1}, from left to right and down`;
      return [
        ...(at === 0 ? [] : [{ ...this.setter.text(of), bold: true, pageBreak: "before" as const }]),
        { svg: inPaperFonts(svg), width: w * scale, height: h * scale },
      ];
    });
  }

  #photo({ photo, caption }: Extract<Block, { is: "photo" }>): Content[] {
    const image = this.#with.photos.get(photo);
    const words = image === undefined ? `${caption} (its photo is not here)` : caption;
    return [
      ...(image === undefined
        ? []
        : [{ image, fit: [PHOTO.width, PHOTO.height] as [number, number], margin: [0, 6, 0, 2] as never }]),
      { ...(this.setter.quiet(words) as object), fontSize: 8 } as Content,
    ];
  }
}

/** A part that wants wide pages: the drawing, and a table that does not fit an upright one. */
const isWidePart = (part: Part, size: Size): boolean =>
  part.blocks.some(
    (block) =>
      block.is === "drawing" ||
      (block.is === "table" &&
        wantsWide(block, roomOn({ size, isWide: false })[0], roomOn({ size, isWide: true })[0])),
  );

function weightOf(block: Block): number {
  if (block.is === "table") return block.rows.length;
  return block.is === "text" ? 1 : LONG;
}
const isLong = ({ blocks }: Part): boolean => blocks.reduce((sum, block) => sum + weightOf(block), 0) > LONG;

const orientation = (isWide: boolean) => (isWide ? ("landscape" as const) : ("portrait" as const));

/** The cover's own head: whose network it is, on which sheet, for whom. */
function coverHead(setter: Setter, { block }: Pack): Content[] {
  return [
    { ...setter.text(block.firm), color: QUIET_INK, margin: [0, 0, 0, 30] },
    { ...setter.text(block.site), fontSize: 26, bold: true, margin: [0, 0, 0, 4] },
    { ...setter.text(`Network papers ${block.reader}`), fontSize: 13 },
    {
      ...setter.text(`Sheet ${block.sheet}, revision ${block.revision}`),
      fontSize: 13,
      margin: [0, 0, 0, 24],
    },
  ];
}

/** A pack as a document of pages, with bookmarks, a list of its parts and a title block on each page. */
export function documentOf(pack: Pack, given: SetWith): TDocumentDefinitions {
  const setter = new Setter(given.inks);
  const content: Content[] = [];
  let isWide = false;
  let wasLong = true;
  pack.parts.forEach((part, at) => {
    const wide = isWidePart(part, given.size);
    const long = isLong(part);
    const isNew = at > 1 ? wide !== isWide || long || wasLong : at > 0 && wide;
    const set = new PartSetter(part, { size: given.size, isWide: wide }, setter, given).content(isNew);
    const [first, ...rest] = set;
    content.push(
      isNew
        ? ({ ...(first as object), pageBreak: "before", pageOrientation: orientation(wide) } as Content)
        : (first as Content),
      ...rest,
    );
    isWide = wide;
    // The list of parts lies between the cover and what follows.
    wasLong = long;
  });
  const isWhole = pack.parts[0]?.key === "cover";
  const unknown =
    setter.unknown === 0
      ? []
      : [
          setter.quiet(
            `${setter.unknown} characters of scripts that these papers have no letters for are shown as "?".`,
          ),
        ];
  return {
    pageSize: given.size === "A4" ? "A4" : "LETTER",
    pageOrientation: orientation(
      !isWhole && pack.parts[0] !== undefined && isWidePart(pack.parts[0], given.size),
    ),
    pageMargins: [...MARGINS],
    info: { title: `${pack.block.site}, ${pack.block.sheet}, ${pack.block.reader}`, creator: "Dianome" },
    defaultStyle: { font: USUAL_FONT, fontSize: 9.5, lineHeight: 1.15, color: INK },
    content: isWhole
      ? [
          ...coverHead(setter, pack),
          ...content.slice(0, coverLength(content)),
          ...unknown,
          {
            pageBreak: "before",
            toc: {
              title: { ...setter.text("Contents"), bold: true, fontSize: 11, margin: [0, 0, 0, 4] },
              textMargin: [0, -1, 0, -1],
            },
          },
          ...content.slice(coverLength(content)),
        ]
      : [...content, ...unknown],
    footer: (page, pages, { width }) => titleBlock(setter, pack.block, { page, pages, width }),
  };
}

/** How much of the content is the cover's: all before the next part's head. */
const coverLength = (content: readonly Content[]): number => {
  const next = content.findIndex((part, at) => at > 0 && typeof part === "object" && "tocItem" in part);
  return next === -1 ? content.length : next;
};
