"use client";

import { toast } from "sonner";
import { encodeBatch } from "@/core/formats";
import { Modal } from "../kit/Modal";
import type { Dropped } from "../plan-store/plan-state";
import { usePlan } from "../plan-store/use-plan";

/** What was dropped as text: its words, the reason, and the changes in the plan file's form. */
const textOf = (dropped: readonly Dropped[]): string =>
  dropped
    .map(
      ({ batch, sentence }) =>
        `${batch.summary}\n${sentence}\n${JSON.stringify(encodeBatch(batch), null, 1)}`,
    )
    .join("\n\n");

async function copy(dropped: readonly Dropped[]) {
  try {
    await navigator.clipboard.writeText(textOf(dropped));
    toast("Copied.");
  } catch (error) {
    if (!(error instanceof DOMException || error instanceof TypeError)) throw error;
    toast.error("The browser does not let this page copy; mark the text and copy it yourself.");
  }
}

/** Changes that the server can never take: named, with the reason, and to be copied before they go. */
export function DroppedDialog() {
  const dropped = usePlan((state) => state.dropped);
  const acknowledge = usePlan((state) => state.acknowledge);
  if (dropped.length === 0) return null;
  return (
    <Modal
      open
      onOpenChange={acknowledge}
      title="Not saved"
      wide
      description={
        "The server can't take these changes, so they are no longer in the " +
        "plan here. Copy them if you want to make them again in another way."
      }
    >
      <ul className="mb-4">
        {dropped.map(({ batch, sentence }) => (
          <li key={batch.id} className="border-t border-hair py-2">
            <h3 className="text-14">{batch.summary}</h3>
            <p className="text-14 text-stop">{sentence}</p>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <button type="button" className="button" onClick={() => void copy(dropped)}>
          Copy
        </button>
        <button type="button" className="button" onClick={acknowledge}>
          Close
        </button>
      </div>
    </Modal>
  );
}
