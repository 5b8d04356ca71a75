"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { remarksOf } from "@/core/records";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { useRecord } from "../../record-store/use-record";
import { RemarkForm } from "./RemarkForm";
import { aboutOf } from "./remarked";
import { RemarkRow } from "./RemarkRow";

const ASKED_EVERY_MS = 5_000;

/** What was remarked on what is selected, or on the whole site; the last first. */
export function RemarksSection() {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const { record, sync } = useRecord();
  const [isWriting, setWriting] = useState(false);
  const about = aboutOf(index, selection);
  const own = useMemo(
    () =>
      remarksOf(record)
        .filter(({ remark }) => (remark.about?.id ?? null) === (about?.id ?? null))
        .reverse(),
    [record, about?.id],
  );
  const asked = useRef(0);
  useEffect(() => {
    // Whoever goes through a table by the arrow keys does not ask for it at each row.
    const now = Date.now();
    if (now - asked.current < ASKED_EVERY_MS) return;
    asked.current = now;
    void sync();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when something else is selected
  }, [about?.id]);
  return (
    <section className="section" aria-label="Remarks">
      <h3>Remarks</h3>
      <ul>
        {own.map((remarked) => (
          <RemarkRow key={remarked.remark.id} remarked={remarked} isNamed={false} />
        ))}
      </ul>
      <p className="px-4 pt-1">
        <button type="button" className="button" onClick={() => setWriting(true)}>
          {about === null ? "Remark on the site …" : "Write a remark …"}
        </button>
      </p>
      {isWriting ? <RemarkForm about={about} onClose={() => setWriting(false)} /> : null}
    </section>
  );
}
