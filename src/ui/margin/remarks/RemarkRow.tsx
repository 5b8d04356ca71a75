"use client";

import { v7 } from "uuid";
import { REMARK_FOR_WORDS, type RecordEntry, type Remarked } from "@/core/records";
import { Photos } from "../../record-store/Photos";
import { useRecord } from "../../record-store/use-record";
import { useIndex } from "../../plan-store/use-plan";
import { dayText } from "../../kit/day-text";
import { whenText } from "../../kit/when-text";

const entry = <E extends object>(fields: E): E & { readonly id: string; readonly at: string } => ({
  id: v7(),
  at: new Date().toISOString(),
  ...fields,
});

/** What was remarked, by whom; an open point is seen to here, and what was wrong is withdrawn. */
export function RemarkRow({ remarked, isNamed }: { remarked: Remarked; isNamed: boolean }) {
  const { site } = useIndex().plan;
  const { add } = useRecord();
  const { by, remark, closed } = remarked;
  const write = (made: RecordEntry) => add(made, []);
  const name = remark.text === "" ? "a photo" : remark.text;
  const isToSee = remark.isOpen && closed === null;
  return (
    <li className="border-b border-hair px-4 py-2 text-13 last:border-b-0">
      {isNamed ? <b className="block font-semibold">{remark.about?.name ?? "The site"}</b> : null}
      <p className="[overflow-wrap:anywhere] whitespace-pre-wrap">{remark.text}</p>
      <p className="text-12 text-ink2">
        {by}, {whenText(remark.at, site.timeZone)}; {REMARK_FOR_WORDS[remark.for]}
        {closed === null ? "" : `; seen to by ${closed.by}`}
      </p>
      {isToSee ? (
        <p className="text-warn">{remark.due === null ? "open" : `open until ${dayText(remark.due)}`}</p>
      ) : null}
      <Photos
        ids={remark.photos}
        of={name}
        entry={null}
        onTakeOut={(photo) => write(entry({ do: "takeOut" as const, photo }))}
      />
      <p className="flex flex-wrap gap-2 pt-1">
        {isToSee ? (
          <button
            type="button"
            className="button"
            aria-label={`Seen to: ${name}`}
            onClick={() => write(entry({ do: "close" as const, remark: remark.id, note: "" }))}
          >
            Seen to
          </button>
        ) : null}
        <button
          type="button"
          className="button"
          aria-label={`Withdraw: ${name}`}
          onClick={() => write(entry({ do: "takeBack" as const, tick: closed?.close.id ?? remark.id }))}
        >
          {closed === null ? "Withdraw" : "Not seen to after all"}
        </button>
      </p>
    </li>
  );
}
