"use client";

import { useState } from "react";
import { v7 } from "uuid";
import { STATE_FORM } from "@/core/comparison";
import { howItStands, proofOf, type Issue } from "@/core/records";
import { Modal } from "../../kit/Modal";
import { planWorker } from "../../plan-store/plan-worker";
import { useHeld, useJudged, usePlan } from "../../plan-store/use-plan";
import { useRecord } from "../../record-store/use-record";
import { useTestSheet } from "../tests/use-test-sheet";
import { Line } from "./Line";

const NOT_SAVED =
  "The server does not have your last changes yet: a sheet is a state that everybody has. " +
  "Wait until they are saved.";
const NOT_JUDGED = "The plan is being judged: how it stands is said in a moment.";
const STAYS =
  "It stays as it is now, whatever becomes of the plan; a sheet that was issued by mistake is withdrawn and " +
  "keeps its letter.";
const NO_CHECK = "Its check value could not be worked out in this browser; reload the page and try again.";

/** Issues the plan as the server has it: its name, whom it is for, how it stands. */
export function IssueSheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const held = useHeld();
  const findings = usePlan((state) => state.list);
  const isJudged = useJudged();
  const { add, record } = useRecord();
  const { sheet: tests, of } = useTestSheet(held.index.plan.site.id);
  const [name, setName] = useState("");
  const [recipient, setRecipient] = useState("");
  const [note, setNote] = useState("");
  const [isBusy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const isSaved = held.pending.length === 0;
  const { plan } = held.index;
  const proof = tests === null || of !== plan ? null : proofOf(held.index, tests, record);
  const stood = howItStands({ findings, accepted: plan.acceptance.size, proof });
  const issue = async () => {
    setBusy(true);
    const check = await Promise.resolve(planWorker().check(held.base)).catch(() => null);
    setBusy(false);
    if (check === null) return setFault(NO_CHECK);
    const entry: Issue = {
      id: v7(),
      at: new Date().toISOString(),
      do: "issue",
      sheet: {
        name: name.trim(),
        recipient: recipient.trim(),
        revision: held.revision,
        form: STATE_FORM,
        check,
        stood,
      },
      note: note.trim(),
    };
    add(entry, []);
    setName("");
    setNote("");
    setFault(null);
    onClose();
  };
  return (
    <Modal open={isOpen} onOpenChange={onClose} title={`Issue revision ${held.revision}`} description={STAYS}>
      <form
        className="flex flex-col gap-3 text-13"
        onSubmit={(event) => {
          event.preventDefault();
          void issue();
        }}
      >
        <Line label="Name, as “As built, first stage”" value={name} onChange={setName} most={120} />
        <Line label="For whom" value={recipient} onChange={setRecipient} most={120} />
        <Line label="Remarks (never a password)" value={note} onChange={setNote} most={2000} />
        <section aria-label="How it stands">
          {isJudged ? (
            <ul className="list-disc pl-5 text-ink2">
              {stood.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          ) : (
            <p role="status" className="text-ink2">
              {NOT_JUDGED}
            </p>
          )}
        </section>
        {isSaved ? null : (
          <p role="alert" className="text-warn">
            {NOT_SAVED}
          </p>
        )}
        {fault === null ? null : (
          <p role="alert" className="text-stop">
            {fault}
          </p>
        )}
        <button
          type="submit"
          className="button go tall"
          disabled={!isSaved || !isJudged || isBusy || name.trim() === ""}
        >
          Issue it
        </button>
      </form>
    </Modal>
  );
}
