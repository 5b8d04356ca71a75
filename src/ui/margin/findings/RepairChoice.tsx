"use client";

import { toast } from "sonner";
import { repairOrder } from "@/core/commands";
import type { Repair } from "@/core/repairs";
import { ProposalPanel, useProposal } from "./Proposal";

/** Repairs on offer: one click shows what it would do, the next does it. The recommended one comes first. */
export function RepairChoice({
  repairs,
  recommend = true,
}: {
  repairs: readonly Repair[];
  recommend?: boolean;
}) {
  const { shown, look, apply, cancel } = useProposal();
  const offer = (repair: Repair) => {
    const refusal = look(repairOrder(repair));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <>
      <div className="flex flex-wrap gap-[6px]">
        {repairs.map((repair, i) => (
          <button
            key={repair.label}
            type="button"
            aria-expanded={shown?.label === repair.label}
            className={`button wrap ${i === 0 && recommend && shown === null ? "go" : ""}`}
            onClick={() => offer(repair)}
          >
            {repair.label}
          </button>
        ))}
      </div>
      {shown === null ? null : <ProposalPanel shown={shown} apply={apply} cancel={cancel} />}
    </>
  );
}
