"use client";

import { renumberTable } from "@/core/sheets";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useIndex } from "../../plan-store/use-plan";
import { ProposalPanel, type Proposal } from "../findings/Proposal";

export function Outcome({
  proposal,
  refusal,
  apply,
  cancel,
}: {
  proposal: Proposal | null;
  refusal: string | null;
  apply: () => void;
  cancel: () => void;
}) {
  const index = useIndex();
  const list = proposal === null ? [] : renumberTable(index, proposal.batch.changes);
  return (
    <div className="px-4">
      {refusal === null ? null : (
        <p role="alert" className="mt-2 border border-stop bg-stop-wash p-2 text-13 text-stop">
          {refusal}
        </p>
      )}
      {proposal === null ? null : (
        <ProposalPanel shown={proposal} apply={apply} cancel={cancel}>
          {list.length <= 1 ? null : (
            <button
              type="button"
              className="button mt-2"
              onClick={() => download(fileName(index.plan.site.name, "renumbering.csv"), CSV_TYPE, csv(list))}
            >
              Save old and new of {list.length - 1} as CSV
            </button>
          )}
        </ProposalPanel>
      )}
    </div>
  );
}
