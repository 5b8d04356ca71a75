import { ascending, byNaturalText } from "../../kernel";
import type { Device, Plan, PlanEdits, PlanIndex, Vid } from "../../plan";
import { pasteInto } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { setRegion } from "./protections";

/** What of a switch's region is written in a cell: its name, its revision, or the tree of one VLAN. */
export type RegionColumn = "name" | "region" | "revision" | `vid ${number}` | "digest";

type Tree = Device["tree"];

/** The columns of the grid: every VLAN of the site has one, by its number. */
export const regionColumns = ({ vlan }: Plan): readonly (readonly [RegionColumn, string])[] => [
  ["name", "Switch"],
  ["region", "Region"],
  ["revision", "Revision"],
  ...[...new Set([...vlan.values()].map(({ vid }) => vid))]
    .sort(ascending)
    .map((vid): readonly [RegionColumn, string] => [`vid ${vid}`, String(vid)]),
  ["digest", "Digest"],
];

const vidOf = (column: RegionColumn): number | null =>
  column.startsWith("vid ") ? Number(column.slice("vid ".length)) : null;

/** The tree that carries a VLAN on a switch: 0 is the common one. */
const instanceOf = ({ instances }: Tree, vid: number): number =>
  instances.find(({ vids }) => (vids as readonly number[]).includes(vid))?.number ?? 0;

/** What a cell says, as it is read; the digest is worked out and not written. */
export function regionCellText({ name, tree }: Device, column: Exclude<RegionColumn, "digest">): string {
  const vid = vidOf(column);
  if (vid !== null) return String(instanceOf(tree, vid));
  if (column === "name") return name;
  return column === "region" ? tree.region : String(tree.revision);
}

const MOST_TREES = 64;

/** The instances with a VLAN in another one; a tree that is new begins with the usual priority. */
function withVid({ instances }: Tree, vid: Vid, number: number): Tree["instances"] | string {
  const without = instances.map((instance) => ({
    ...instance,
    vids: instance.vids.filter((other) => other !== vid),
  }));
  if (number === 0) return without;
  const known = without.find((instance) => instance.number === number);
  if (known === undefined && without.length >= MOST_TREES)
    return `A region has at most ${MOST_TREES} trees beside the common one.`;
  const target = known ?? { number, vids: [], priority: 32_768 };
  const others = without.filter((instance) => instance.number !== number);
  return [...others, { ...target, vids: [...target.vids, vid].sort(ascending) }].sort((a, b) =>
    ascending(a.number, b.number),
  );
}

function writeCell(context: EditContext, id: string, column: RegionColumn, text: string): Refusal {
  const { edits } = context;
  if (column === "name") return "A switch gets its name on Hardware.";
  if (column === "digest") return "The digest follows from the VLANs' trees; change those.";
  if (column === "region" || column === "revision") return setRegion(context, id, column, text);
  const { tree } = edits.need("device", id);
  const number = /^\d{0,4}$/.test(text) ? Number(text) : null;
  const vid = [...edits.all("vlan")].find((vlan) => vlan.vid === vidOf(column))?.vid;
  if (number === null || number > 4094)
    return `"${text}" is no tree; write 0 for the common one, or 1 to 4094.`;
  if (vid === undefined) return "That VLAN is not in the plan any more.";
  const instances = withVid(tree, vid, number);
  if (typeof instances === "string") return instances;
  edits.patch("device", id, { tree: { ...tree, instances } });
  return null;
}

/** Writes a block of texts onto the regions of switches. */
export const pasteRegions = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: RegionColumn,
  onto: readonly string[],
): Refusal => {
  const columns = regionColumns(context.index.plan);
  if (!columns.some(([column]) => column === from)) return "That VLAN is not in the plan any more.";
  return pasteInto(columns, { rows, from, onto }, (id, cells) => {
    if (id === null) return "There are no more switches with multiple trees to write this on.";
    for (const [column, typed] of cells) {
      const refusal = writeCell(context, id, column, typed.trim());
      if (refusal !== null) return refusal;
    }
    return null;
  });
};

/** Gives a switch the region of another: name, revision and map; the priorities of trees stay its own. */
function takeRegion(edits: PlanEdits, from: string, to: string): void {
  const [source, target] = [edits.need("device", from).tree, edits.need("device", to).tree];
  const kept = new Map(target.instances.map((instance) => [instance.number, instance.priority]));
  edits.patch("device", to, {
    tree: {
      ...target,
      region: source.region,
      revision: source.revision,
      instances: source.instances.map((instance) => ({
        ...instance,
        priority: kept.get(instance.number) ?? 32_768,
      })),
    },
  });
}

/** Gives switches the region of one of them, so that all are one region. */
export function copyRegion(edits: PlanEdits, from: string, onto: readonly string[]): void {
  for (const id of onto) if (id !== from) takeRegion(edits, from, id);
}

/** The switches with multiple trees, by name. */
export const withRegions = ({ plan }: PlanIndex): Device[] =>
  [...plan.device.values()]
    .filter(({ bridging, tree }) => bridging === "vlan" && tree.kind === "multiple")
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id));
