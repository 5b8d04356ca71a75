"use client";

import { pasteWishes, removeWishes, writeWish } from "@/core/commands";
import { useMemo, type RefObject } from "react";
import { byNaturalText } from "@/core/kernel";
import type { PlanIndex, Wish } from "@/core/plan";
import { WISH_COLUMNS, wishCellText, type Way, type WishColumn } from "@/core/planners";
import { WAY_HEADS, WAYS, type WayIn } from "@/core/ways-in";
import { useUi } from "../../frame/use-ui";
import type { Column } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { textActions } from "../../grid/text-table";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { WayCell } from "./WayCell";
import { useWays } from "./use-ways";

type Shown = WishColumn | Way;
const OWN = new Set<Shown>(WISH_COLUMNS.map(([id]) => id));
const TRIED = "That is tried, not written.";
const isOwn = (column: Shown): column is WishColumn => OWN.has(column);

function columnsOf(index: PlanIndex, ways: ReadonlyMap<string, readonly WayIn[]>): Column<Wish, Shown>[] {
  const offers: Partial<Record<Shown, readonly string[]>> = {
    to: [...index.plan.host.values()].map(({ name }) => name),
    service: ["https", "ssh", "rdp"],
    from: ["anywhere"],
    way: ["not chosen", "forward", "VPN", "push out", "IPv6"],
  };
  const own = (id: WishColumn, head: string): Column<Wish, Shown> => ({
    id,
    head,
    mono: id === "from",
    text: (wish) => wishCellText(index, wish, id),
    offers: () => offers[id] ?? [],
  });
  const tried = (way: Way): Column<Wish, Shown> => {
    const find = (wish: Wish) => ways.get(wish.id)?.find((wayIn) => wayIn.way === way);
    return {
      id: way,
      head: WAY_HEADS[way],
      derived: true,
      text: (wish) => find(wish)?.best?.verdict ?? "",
      show: (wish) => <WayCell tried={find(wish)?.best ?? undefined} chosen={wish.way === way} />,
    };
  };
  // The ways stand beside the name: what a wish leads to is said under it, and written further right.
  const [name, ...rest] = WISH_COLUMNS;
  return [
    ...(name === undefined ? [] : [{ ...own(...name), show: (wish: Wish) => wishHead(index, wish) }]),
    ...WAYS.map(tried),
    ...rest.map(([id, head]) => own(id, head)),
  ];
}

const wishHead = (index: PlanIndex, wish: Wish) => (
  <span className="block w-[138px] leading-4 whitespace-normal">
    {wish.name}
    <span className="block text-12 text-ink2">
      {wishCellText(index, wish, "to")}, {wishCellText(index, wish, "service")}
    </span>
  </span>
);

/** Who wants to reach what from outside, and by which way that can really work: each tried with a packet. */
export function WaysTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const wishes = useMemo(
    () =>
      [...index.plan.wish.values()].sort(
        (a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id),
      ),
    [index],
  );
  const ways = useWays(index, wishes);
  const actions = textActions<Shown>({
    edit: (id, column, text) => (isOwn(column) ? edit(writeWish({ wish: id, column, text })) : TRIED),
    paste: (rows, from, onto) => (isOwn(from) ? edit(pasteWishes({ rows, from, onto })) : TRIED),
    remove: (ids) => edit(removeWishes({ wishes: ids })),
    select: (id, column) => select({ what: "wish", id, way: isOwn(column) ? null : column }),
  });
  return (
    <section aria-label="Ways in">
      <h2 className="flex min-h-10 items-center gap-2 px-4 text-15">
        Ways in{" "}
        <span className="text-13 font-normal text-ink2">each wish tried with a packet from outside</span>
      </h2>
      <div className="overflow-x-auto">
        <EditGrid<Wish, Shown>
          label="Ways in"
          rows={wishes}
          idOf={(wish) => wish.id}
          columns={columnsOf(index, ways)}
          actions={actions}
          scroller={scroller}
          selected={selection?.what === "wish" ? selection.id : null}
          newRow={{ name: "I want to reach …", to: "a device of the register" }}
        />
      </div>
    </section>
  );
}
