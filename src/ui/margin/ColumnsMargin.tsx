"use client";

import type { ReactNode } from "react";
import type { Refusal } from "@/core/planners";
import { useUi } from "../frame/use-ui";
import { TextField } from "../kit/TextField";
import { FindingsSection } from "./findings/FindingsSection";
import { HistorySection } from "./HistorySection";
import { MarginHead, Section } from "./parts";

interface Props<C extends string> {
  /** What it is, as a person calls it. */
  readonly word: string;
  readonly id: string;
  readonly name: string;
  readonly columns: readonly (readonly [C, string])[];
  readonly text: (column: C) => string;
  readonly write: (column: C, text: string) => Refusal;
  readonly remove: () => void;
  /** What is known of it and not written here. */
  readonly facts?: ReactNode;
  /** What has to be said before it is done. */
  readonly caution?: ReactNode;
}

/** The margin of one row of a table of texts: each of its cells, its findings, its history. */
export function ColumnsMargin<C extends string>(props: Props<C>) {
  const { word, id, name, columns, text, write, remove, facts, caution } = props;
  const select = useUi((state) => state.select);
  return (
    <>
      <MarginHead kick={`Selected ${word}`}>{name}</MarginHead>
      {facts}
      <Section title="Change">
        {columns.map(([column, head]) => (
          <TextField
            key={column}
            label={head}
            value={text(column)}
            write={(written) => write(column, written)}
          />
        ))}
      </Section>
      <FindingsSection ids={new Set([id])} />
      {caution}
      <div className="section px-4 pt-3">
        <button
          type="button"
          className="button danger"
          onClick={() => {
            remove();
            select(null);
          }}
        >
          Remove the {word}
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}

/** Said where something is selected that is no longer there. */
export function Gone({ word }: { word: string }) {
  return <p className="p-4 text-ink2">That {word} is gone; choose another one.</p>;
}
