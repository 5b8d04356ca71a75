// Which column of a pasted table is which: devices call the same thing by many names.

/** What a column can hold. */
export type Column =
  | "port"
  | "vid"
  | "pvid"
  | "name"
  | "untagged"
  | "tagged"
  | "members"
  | "enabled"
  | "state"
  | "admit"
  | "ingressFilter"
  | "address"
  | "mode";

/** Heads without blanks and marks, in small letters. */
const HEADS: Heads<Column> = [
  ["pvid", /^(pvid|nativevlan(id)?|native|accessvlan|portvlan(id)?|untaggedvlanid)$/],
  ["vid", /^(vlan|vlanid|vid|8021qvlanid|vlans?id)$/],
  ["untagged", /^(untagged(vlans?|ports?|members?|memberports?)?|untag|egressuntagged)$/],
  [
    "tagged",
    /^(tagged(vlans?|ports?|members?|memberports?)?|tag|allowed(vlans?)?|trunkvlans?|egresstagged)$/,
  ],
  ["members", /^(ports|members?|memberports?|vlans|vlanmembership|membership)$/],
  ["port", /^(port|portno|portnumber|portname|interface|interfaces|iface|if|ifname|intf)$/],
  ["enabled", /^(enabled?|admin(state|status|mode)?|administrative(state|status))$/],
  ["state", /^(state|status|link|linkstate|linkstatus)$/],
  ["admit", /^(acceptable(frames?|frametypes?)|frametypes?|acceptedframes?|admits?)$/],
  ["ingressFilter", /^(ingressfilter(ing)?|ingresscheck(ing)?)$/],
  ["address", /^(ip|ipaddress(es)?|address(es)?|ipv4(address)?|ipv6(address)?|inet6?|addressmask)$/],
  ["mode", /^(mode|portmode|type|linktype|switchport(mode)?)$/],
  ["name", /^(name|vlanname|description)$/],
];

/** What heads of some kind of table can be called. */
export type Heads<C extends string> = readonly (readonly [C, RegExp])[];

/** What a head says that its column holds; null for what is none of these. */
function columnIn<C extends string>(heads: Heads<C>, head: string): C | null {
  const text = head.toLowerCase().replace(/[^a-z0-9]/g, "");
  return heads.find(([, names]) => names.test(text))?.[0] ?? null;
}

type Cut = (line: string) => string[];

const trimmed = (cells: readonly string[]): string[] =>
  cells.map((cell) =>
    cell
      .trim()
      .replace(/^"(.*)"$/, "$1")
      .replaceAll('""', '"')
      .trim(),
  );

/** Cuts at a mark, but not within quotation marks. */
const atMark =
  (mark: string): Cut =>
  (line) => {
    const cells: string[] = [""];
    let isQuoted = false;
    for (const sign of line) {
      if (sign === '"') isQuoted = !isQuoted;
      if (sign === mark && !isQuoted) cells.push("");
      else cells[cells.length - 1] += sign;
    }
    return trimmed(cells);
  };

/** Cuts where the heads begin, for columns that are lined up with blanks; a cell may begin before its head. */
function atHeads(head: string): Cut {
  const starts = [...head.matchAll(/\S+(?: \S+)*/g)].map(({ index }) => index);
  return (line) => {
    const cells: string[] = starts.map(() => "");
    for (const { 0: text, index } of line.matchAll(/\S+(?: \S+)*/g)) {
      const end = index + text.length;
      // The head that it lies under most: the last that begins before its end.
      const at = starts.findLastIndex((start) => start < end);
      const own = Math.max(0, at);
      cells[own] = cells[own] === "" ? text : `${cells[own]} ${text}`;
    }
    return trimmed(cells);
  };
}

const inBars: Cut = (line) => atMark("|")(line.trim().replace(/^\||\|$/g, ""));

const cutsFor = (head: string): readonly Cut[] => [
  atMark("\t"),
  atMark(";"),
  inBars,
  atHeads(head),
  atMark(","),
];

export interface Cells<C extends string = Column> {
  readonly columns: readonly (C | null)[];
  readonly rows: readonly (readonly string[])[];
}

/** Among so many lines the heads are looked for: a prompt and a title may stand before them. */
const HEADS_WITHIN = 12;

/** A pasted table cut into its cells; null where no line names two columns that are known. */
export const cellsOf = (text: string): Cells | null => cellsUnder(HEADS, text);

/** The same for a table of another kind. */
export function cellsUnder<C extends string>(heads: Heads<C>, text: string): Cells<C> | null {
  const columnOf = (head: string) => columnIn(heads, head);
  const lines = text
    .replace(/^\ufeff/, "")
    .split(/\r?\n/)
    .filter((line) => line.trim() !== "" && !/^[\s=+|:-]+$/.test(line));
  let best: { readonly known: number; readonly at: number; readonly cut: Cut } | null = null;
  for (const [at, line] of lines.slice(0, HEADS_WITHIN).entries())
    for (const cut of cutsFor(line)) {
      const known = new Set(cut(line).flatMap((head) => columnOf(head) ?? [])).size;
      if (known >= 2 && known > (best?.known ?? 0)) best = { known, at, cut };
    }
  if (best === null) return null;
  const { cut, at } = best;
  return { columns: cut(lines[at] ?? "").map(columnOf), rows: lines.slice(at + 1).map(cut) };
}
