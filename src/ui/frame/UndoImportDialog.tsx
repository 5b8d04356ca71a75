"use client";

import { toast } from "sonner";
import { Modal } from "../kit/Modal";
import { usePlan } from "../plan-store/use-plan";

/** Taking back a whole imported plan empties the sheets: that is asked first, whatever key led there. */
export function UndoImportDialog() {
  const open = usePlan((state) => state.confirmingUndo);
  const what = usePlan((state) => state.steps.undo);
  const undoImport = usePlan((state) => state.undoImport);
  const keepImport = usePlan((state) => state.keepImport);
  const undo = async () => {
    const refusal = await undoImport();
    if (refusal !== null) toast.error(refusal, { duration: 8000 });
  };
  return (
    <Modal
      open={open}
      onOpenChange={keepImport}
      title="Take the whole import back?"
      description={
        `Your last step is "${what ?? ""}". Undoing it removes ` +
        "everything that came with the file. It can be brought back."
      }
    >
      <div className="flex gap-2">
        <button type="button" className="button" onClick={keepImport}>
          Cancel
        </button>
        <button type="button" className="button" onClick={() => void undo()}>
          Undo the import
        </button>
      </div>
    </Modal>
  );
}
