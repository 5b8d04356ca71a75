import { nameOf } from "../plan";
import {
  pasteTunnels as pasteTunnelsInto,
  pasteWishes as pasteWishesInto,
  removeSegment,
  setUpWay as setUpWayOf,
  TUNNEL_COLUMNS,
  WAY_WORDS,
  WISH_COLUMNS,
  type TunnelColumn,
  type Way,
  type WishColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const headOf = (columns: readonly (readonly [string, string])[], column: string): string =>
  columns.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const writeWish = command<{
  /** Null for a new one, which begins with the device that is to be reached. */
  readonly wish: string | null;
  readonly column: WishColumn;
  readonly text: string;
}>("write-wish", {
  says: ({ wish, column, text }, index) =>
    wish === null
      ? `New wish to reach ${text}`
      : `Wish ${nameOf(index, "wish", wish)}, ${headOf(WISH_COLUMNS, column)}: ${text || "nothing"}`,
  run: (context, { wish, column, text }) =>
    pasteWishesInto(context, [[text]], column, wish === null ? [] : [wish]),
});

export const pasteWishes = command<Pasted<WishColumn>>("paste-wishes", {
  says: ({ rows }) => pasted(rows, "the ways in"),
  run: (context, { rows, from, onto }) => pasteWishesInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeWishes = command<{ readonly wishes: readonly string[] }>("remove-wishes", {
  says: ({ wishes }, index) =>
    wishes.length === 1 && wishes[0] !== undefined
      ? `Removed the wish ${nameOf(index, "wish", wishes[0])}`
      : `Removed ${counted(wishes.length, "wish", "wishes")}`,
  run: ({ edits }, { wishes }) => {
    for (const wish of wishes) edits.remove("wish", wish);
  },
});

export const setUpWay = command<{ readonly wish: string; readonly way: Way; readonly line: string }>(
  "set-up-way",
  {
    says: ({ wish, way, line }, index) =>
      `Set up ${nameOf(index, "wish", wish)} by ${WAY_WORDS[way]}, ${nameOf(index, "line", line)}`,
    run: (context, args) => setUpWayOf(context, args),
  },
);

export const writeTunnel = command<{
  /** Null for a new one, which begins with its name. */
  readonly segment: string | null;
  readonly column: TunnelColumn;
  readonly text: string;
}>("write-tunnel", {
  says: ({ segment, column, text }, index) =>
    segment === null
      ? `New tunnel ${text}`
      : `Tunnel ${nameOf(index, "segment", segment)}, ${headOf(TUNNEL_COLUMNS, column)}: ${text || "nothing"}`,
  run: (context, { segment, column, text }) =>
    pasteTunnelsInto(context, [[text]], column, segment === null ? [] : [segment]),
});

export const pasteTunnels = command<Pasted<TunnelColumn>>("paste-tunnels", {
  says: ({ rows }) => pasted(rows, "the tunnels"),
  run: (context, { rows, from, onto }) => pasteTunnelsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeTunnels = command<{ readonly segments: readonly string[] }>("remove-tunnels", {
  says: ({ segments }, index) =>
    segments.length === 1 && segments[0] !== undefined
      ? `Removed the tunnel ${nameOf(index, "segment", segments[0])}`
      : `Removed ${counted(segments.length, "tunnel", "tunnels")}`,
  run: ({ edits }, { segments }) => {
    for (const segment of segments) removeSegment(edits, segment);
  },
});
