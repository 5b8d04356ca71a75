import type { Device } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/** Steps of a bridge's priority (IEEE 802.1Q section 13.26.3). */
const STEP = 4096;
const MOST = 61_440;
const USUAL = 32_768;

/** Which spanning tree a device runs. */
export function setTreeKind(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  kind: Device["tree"]["kind"],
): Refusal {
  const device = edits.need("device", id);
  if (kind !== "none" && !device.abilities.trees.includes(kind))
    return `${device.name} is not known to have that tree; tick it under "What its software can do" first.`;
  edits.patch("device", id, { tree: { ...device.tree, kind } });
  return null;
}

/** A device's bridge priority as it is typed. */
export function setTreePriority({ edits }: Pick<EditContext, "edits">, id: string, typed: string): Refusal {
  const text = typed.trim().replace(/[, ]/g, "");
  const priority = /^\d{1,5}$/.test(text) ? Number(text) : null;
  if (priority === null || priority > MOST || priority % STEP !== 0)
    return (
      `"${typed.trim()}" is no bridge priority; write 0 to ` +
      `${MOST} in steps of ${STEP}, such as ${STEP} for the root.`
    );
  edits.patch("device", id, { tree: { ...edits.need("device", id).tree, priority } });
  return null;
}

/** Timers of a tree with the least and the most that they take (IEEE 802.1Q table 13-5, section 13.26.4). */
export const TREE_TIMERS = {
  helloSeconds: { words: "hello time", least: 1, most: 10, unit: "s" },
  maxAge: { words: "maximum age", least: 6, most: 40, unit: "s" },
  forwardDelay: { words: "forward delay", least: 4, most: 30, unit: "s" },
  hops: { words: "hops", least: 6, most: 40, unit: "" },
} as const;
export type TreeTimer = keyof typeof TREE_TIMERS;

/** One timer of a device's tree as it is typed. */
export function setTreeTimer(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  timer: TreeTimer,
  typed: string,
): Refusal {
  const { words, least, most, unit } = TREE_TIMERS[timer];
  const text = typed.trim().replace(/\s*s$/, "");
  const value = /^\d{1,2}$/.test(text) ? Number(text) : null;
  if (value === null || value < least || value > most)
    return `"${typed.trim()}" is no ${words}; write ${least} to ${most}${unit === "" ? "" : " seconds"}.`;
  edits.patch("device", id, { tree: { ...edits.need("device", id).tree, [timer]: value } });
  return null;
}

/**
 * Makes a device the root, and another the one that takes over: 4096 and 8192; whoever else was as low goes
 * back to the usual 32768.
 */
export function chooseRoot(
  { edits }: Pick<EditContext, "edits">,
  root: string,
  second: string | null,
): Refusal {
  const first = edits.need("device", root);
  if (first.tree.kind === "none") return `${first.name} runs no spanning tree; choose its kind first.`;
  if (second === root) return "Root and second root are two devices.";
  const priorityFor = ({ id, tree }: Device): number => {
    if (id === root) return STEP;
    if (id === second) return 2 * STEP;
    return tree.priority <= 2 * STEP ? USUAL : tree.priority;
  };
  for (const device of edits.all("device")) {
    const wanted = priorityFor(device);
    edits.patch("device", device.id, { tree: { ...device.tree, priority: wanted } });
  }
  return null;
}
