"use client";

import { toast } from "sonner";
import type { Port } from "@/core/plan";
import { makeLag } from "@/core/planners";
import { usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** Makes one LAG of the chosen ports. */
export function JoinPorts({ name, run, ports }: { name: string; run: string; ports: readonly Port[] }) {
  const edit = usePlan((state) => state.edit);
  const join = () => {
    const refusal = edit(
      {
        planner: "make-lag",
        summary: `${name} ${run}: one LAG`,
        args: { ports: ports.map((port) => port.id) },
      },
      (bench) =>
        makeLag(
          bench,
          ports.map((port) => port.id),
          "active",
        ),
    );
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
