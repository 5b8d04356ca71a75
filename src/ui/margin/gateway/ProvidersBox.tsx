"use client";

import type { Line } from "@/core/plan";
import { arrangeBox, ARRANGEMENTS, type Arrangement } from "@/core/planners";
import type { Repair } from "@/core/repairs";
import { RepairChoice } from "../findings/RepairChoice";
import { Caution, Section } from "../parts";

const setUp = (line: Line, arrangement: Arrangement, name: string): Repair => {
  const args = { line: line.id, arrangement };
  return {
    label: `Let it be ${name}`,
    planner: "arrange-box",
    args,
    edit: (edits, ids) => arrangeBox({ edits, ids }, args),
  };
};

/** Where the provider's box stands: each arrangement with its reason, its price, and what it would change. */
export function ProvidersBox({ line }: { line: Line }) {
  return (
    <Section title="Provider’s box">
      <ul className="flex flex-col gap-3 px-4">
        {ARRANGEMENTS.map(({ arrangement, name, why, price }) => (
          <li key={arrangement}>
            <p className="pb-1">
              <b className="font-semibold">{name}</b>{" "}
              <span className="text-ink2">
                {why} {price}
              </span>
            </p>
            <RepairChoice repairs={[setUp(line, arrangement, name)]} recommend={false} />
          </li>
        ))}
      </ul>
      <Caution head="Emergency calls.">
        Internet telephony fails with power or line, and may not say where the caller is: say so to the
        customer before the box is moved. Alarms and lifts on the line are for certified trades.
      </Caution>
    </Section>
  );
}
