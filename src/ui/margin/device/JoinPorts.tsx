"use client";

import { makeLag } from "@/core/commands";
import { toast } from "sonner";
import type { Port } from "@/core/plan";
import { usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** Makes one LAG of the chosen ports. */
export function JoinPorts({ run, ports }: { run: string; ports: readonly Port[] }) {
  const edit = usePlan((state) => state.edit);
  const join = () => {
    const refusal = edit(makeLag({ ports: ports.map((port) => port.id) }));
    if (refusal !== null) toast.error(refusal);
    else toast(`Ports ${run} are one LAG; its kind is in the device's margin.`);
  };
  return (
    <Section title="Several cables as one">
      <div className="px-4">
        <button type="button" className="button" onClick={join}>
          Make a LAG of these {ports.length} ports
        </button>
      </div>
    </Section>
  );
}
