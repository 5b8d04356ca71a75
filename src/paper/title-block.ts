import type { Content, TableCell } from "pdfmake/interfaces";
import type { TitleBlock } from "@/core/pack";
import { INK, QUIET_INK } from "./inks";
import { MARGINS } from "./page";
import type { Setter } from "./setter";

interface At {
  readonly page: number;
  readonly pages: number;
  /** Of the page, in points. */
  readonly width: number;
}

/** The block at the foot of every page: what it is of, which sheet, who answers for it, which page. */
export function titleBlock(setter: Setter, block: TitleBlock, { page, pages, width }: At): Content {
  const [left, , right] = MARGINS;
  const cell = (name: string, value: string, isBold = false): TableCell => ({
    stack: [
      { ...setter.text(name), fontSize: 6, color: QUIET_INK },
      { ...setter.text(value === "" ? "\u2013" : value), fontSize: 7.5, bold: isBold },
    ],
  });
  const room = width - left - right;
  const widths = [0.3, 0.27, 0.27, 0.16].map((share) => share * room - 8);
  return {
    margin: [left, 18, right, 0],
    layout: {
      hLineWidth: (at) => (at === 1 ? 0.4 : 0.8),
      vLineWidth: (at, node) => (at === 0 || at === (node.table.widths?.length ?? 0) ? 0.8 : 0.4),
      hLineColor: () => INK,
      vLineColor: () => INK,
      paddingLeft: () => 4,
      paddingRight: () => 4,
      paddingTop: () => 2,
      paddingBottom: () => 2,
    },
    table: {
      widths,
      dontBreakRows: true,
      body: [
        [
          cell("Site", block.site, true),
          cell("Sheet", block.sheet, true),
          cell("Drawn", block.drawn),
          cell("Revision", block.revision),
        ],
        [
          cell("By", block.firm === "" ? block.reader : `${block.firm}, ${block.reader}`),
          cell("Check value", block.check),
          cell(
            "Checked and accepted",
            [block.checked, block.accepted].filter((text) => text !== "").join("; "),
          ),
          cell("Page", `${page} of ${pages}`, true),
        ],
      ],
    },
  };
}
