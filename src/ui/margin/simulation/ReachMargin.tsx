"use client";

import { clsx } from "clsx";
import { useMemo } from "react";
import { differenceAt, reachAt, reachMatrix, reachSentence } from "@/core/reach";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { Fact, MarginHead, Section } from "../parts";

const COLUMN_NAMES = { internet: "the internet", gateway: "the gateway" };

const DIFFERS = "mx-4 mt-2 flex items-center gap-1 border-l-[3px] pl-2 text-13";
const LOOK = { more: "border-stop text-stop", less: "border-warn text-warn" };

/**
 * One pair of the matrix: what gets through and why, with the wall behind it and a probe between two of its
 * hosts.
 */
export function ReachMargin({ at }: { at: { readonly row: number; readonly column: number } | null }) {
  const { row, column } = at ?? { row: -1, column: -1 };
  const index = useIndex();
  const matrix = useMemo(() => reachMatrix(index), [index]);
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const [from, to] = [matrix.rows[row], matrix.columns[column]];
  if (from === undefined || to === undefined)
    return (
      <>
        <MarginHead kick="Reachability">Choose a pair</MarginHead>
        <p className="p-4 text-ink2">
          A cell says what gets from the segment on the left to the one above; here you see why, with the wall
          behind it.
        </p>
      </>
    );
  const difference = differenceAt(matrix, row, column);
  const source = index.hostsIn(from.id).find((host) => host.attachment.at !== "unplaced");
  const target =
    typeof to === "string"
      ? undefined
      : index.hostsIn(to.id).find((host) => host.attachment.at !== "unplaced" && host.id !== source?.id);
  const canAsk = source !== undefined && (typeof to === "string" || target !== undefined);
  const ask = () => {
    if (source === undefined) return;
    const goal =
      typeof to === "string"
        ? { to, service: null }
        : { to: "host" as const, host: target?.id ?? "", service: null };
    select(null);
    set({
      probeWay: "journey",
      probe: { from: { at: "host", host: source.id }, as: { as: "client" }, family: 4, goal },
    });
  };
  const wall = () => {
    select({
      what: "wall",
      from: { at: "zone", zone: from.zone },
      to: typeof to === "string" ? { at: to } : { at: "zone", zone: to.zone },
    });
    goTo.view("walls");
  };
  return (
    <>
      <MarginHead kick="Reachability">
        {from.name} to {typeof to === "string" ? COLUMN_NAMES[to] : to.name}
      </MarginHead>
      <dl className="facts">
        <Fact name="Now">{reachAt(matrix, row, column)}</Fact>
      </dl>
      <Section title="Why">
        <p className="px-4">{reachSentence(index, matrix, row, column)}</p>
        {difference === null ? null : (
          <p className={clsx(DIFFERS, LOOK[difference])}>
            <SeveritySign severity={difference === "more" ? "stop" : "warn"} />
            {difference === "more"
              ? "More gets through than the walls intend."
              : "Less gets through than the walls intend."}
          </p>
        )}
        {matrix.split.has(from.id) ? (
          <p className="mx-4 mt-2 text-13 text-ink2">
            {from.name}’s VLAN does not reach all of its devices; this holds for the larger part of it.
          </p>
        ) : null}
        <div className="flex flex-wrap gap-[6px] px-4 pt-3">
          {row === column ? null : (
            <button type="button" className="button" onClick={wall}>
              Show the wall
            </button>
          )}
          {canAsk ? (
            <button type="button" className="button" onClick={ask}>
              Probe from {source.name}
            </button>
          ) : (
            <p className="text-13 text-ink2">No device of the register stands on both sides to probe from.</p>
          )}
        </div>
      </Section>
    </>
  );
}
