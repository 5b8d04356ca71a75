"use client";

import { clsx } from "clsx";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from "react";

/** A row of a list that is chosen from: what it says aloud, how it looks, what is in it. */
export interface ListRow {
  readonly key: string;
  readonly words: string;
  readonly className?: string;
  readonly content: ReactNode;
}

interface RowListProps {
  readonly label: string;
  readonly count: number;
  readonly height: number;
  /** The grid of its columns. */
  readonly columns: string;
  /** The chosen row; null for none. */
  readonly at: number | null;
  readonly choose: (at: number) => void;
  readonly row: (at: number) => ListRow | null;
}

/** A long list of which one row is chosen, by mouse or keys; only the rows in sight are drawn. */
export function RowList({ label, count, height, columns, at, choose, row }: RowListProps) {
  const box = useRef<HTMLDivElement>(null);
  // The library's object changes under the same identity on purpose; it is made to be used this way.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: () => height,
    overscan: 8,
  });
  useEffect(() => {
    if (at !== null) rows.scrollToIndex(at);
  }, [at, rows]);
  const onKeyDown = (event: KeyboardEvent) => {
    const now = at ?? 0;
    const to = { ArrowDown: now + 1, ArrowUp: now - 1, Home: 0, End: count - 1 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    if (to < 0 || to >= count) return;
    choose(to);
    requestAnimationFrame(() => box.current?.querySelector<HTMLElement>(`[data-row="${to}"]`)?.focus());
  };
  return (
    <div
      ref={box}
      role="listbox"
      aria-label={label}
      className="min-h-0 flex-1 overflow-auto"
      tabIndex={-1}
      onKeyDown={onKeyDown}
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const shown = row(index);
          return shown === null ? null : (
            <button
              key={shown.key}
              type="button"
              role="option"
              aria-selected={index === at}
              aria-label={shown.words}
              data-row={index}
              tabIndex={index === (at ?? 0) ? 0 : -1}
              onClick={() => choose(index)}
              style={{ top: start, height }}
              className={clsx(
                "absolute grid w-full",
                columns,
                "items-center gap-2 border-b border-hair px-4 text-left text-13",
                index === at ? "bg-act-wash" : "hover:bg-hover",
                shown.className ?? "",
              )}
            >
              {shown.content}
            </button>
          );
        })}
      </div>
    </div>
  );
}
