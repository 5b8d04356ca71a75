import { nameOf } from "../plan";
import {
  copyRegion as copyRegionTo,
  pasteRegions as pasteRegionsInto,
  regionColumns,
  type RegionColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

export const writeRegion = command<{
  readonly device: string;
  readonly column: RegionColumn;
  readonly text: string;
}>("write-region", {
  says: ({ device, column, text }, index) => {
    const head = regionColumns(index.plan).find(([key]) => key === column)?.[1] ?? "";
    const what = column.startsWith("vid ") ? `tree of VLAN ${head}` : head.toLowerCase();
    return `${nameOf(index, "device", device)}, ${what}: ${text || "none"}`;
  },
  run: (context, { device, column, text }) => pasteRegionsInto(context, [[text]], column, [device]),
});

export const pasteRegions = command<Pasted<RegionColumn>>("paste-regions", {
  says: ({ rows }) => pasted(rows, "the regions"),
  run: (context, { rows, from, onto }) => pasteRegionsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const copyRegion = command<{ readonly from: string; readonly onto: readonly string[] }>(
  "copy-region",
  {
    says: ({ from, onto }, index) =>
      `Region of ${nameOf(index, "device", from)} for ${counted(onto.length, "switch", "switches")}`,
    run: ({ edits }, { from, onto }) => copyRegionTo(edits, from, onto),
  },
);
