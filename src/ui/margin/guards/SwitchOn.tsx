"use client";

import { useMemo, useState } from "react";
import { SAFE_GUARDS, switchOnAhead } from "@/core/guards";
import type { Host } from "@/core/plan";
import type { Reason, SafeGuard } from "@/core/planners";
import { capital, counted } from "@/core/repairs";
import { useSlices } from "../../kit/use-slices";
import { useIndex } from "../../plan-store/use-plan";
import { RepairChoice } from "../findings/RepairChoice";
import { Caution, Section } from "../parts";

const GUARDS = Object.keys(SAFE_GUARDS) as SafeGuard[];
const MOST = 12;

function Reasons({ title, reasons }: { title: string; reasons: readonly Reason[] }) {
  if (reasons.length === 0) return null;
  return (
    <div className="px-4">
      <h4 className="text-13 font-semibold">{title}</h4>
      <ul className="text-13">
        {reasons.slice(0, MOST).map(({ at, why }) => (
          <li key={`${at} ${why}`} className="border-t border-hair py-[3px]">
            <b className="font-semibold">{at}</b> {why}
          </li>
        ))}
        {reasons.length > MOST ? (
          <li className="py-[3px] text-ink2">and {reasons.length - MOST} more</li>
        ) : null}
      </ul>
    </div>
  );
}

function Losing({ hosts, left }: { hosts: readonly Host[]; left: number }) {
  if (hosts.length === 0)
    return left > 0
      ? `${counted(left, "device is", "devices are")} still to be asked.`
      : "nobody who has a network now is without one then.";
  return (
    <b className="font-semibold text-stop">
      {counted(hosts.length, "device loses its network", "devices lose their network")}:{" "}
      {hosts.map(({ name }) => name).join(", ")}
    </b>
  );
}

/** What one guard would set all over the site, what it leaves out, who would lose something. */
function Ahead({ guard }: { guard: SafeGuard }) {
  const index = useIndex();
  const ahead = useMemo(() => switchOnAhead(index, guard), [index, guard]);
  const { sets, leaves, repair } = ahead;
  const { done, all, answers } = useSlices(ahead.hosts, ahead.loses);
  const losing = answers.filter(([, loses]) => loses).map(([host]) => host);
  return (
    <div className="flex flex-col gap-2 pt-2" aria-live="polite">
      <p className="px-4">
        {repair === null ? (
          "Nothing is left to switch on."
        ) : (
          <>
            {counted(sets.length, "setting", "settings")}; <Losing hosts={losing} left={all - done} />
          </>
        )}
      </p>
      <Reasons title="In this order" reasons={sets} />
      <Reasons title="Left out" reasons={leaves} />
      {guard === "inspection" && sets.length > 0 ? (
        <Caution head="Restarts.">
          What snooping has learnt is lost when a switch restarts, unless it stores it: those with a lease
          then reach nobody until they ask for an address again.
        </Caution>
      ) : null}
      {repair === null || done < all ? null : (
        <div className="px-4">
          <RepairChoice repairs={[repair]} />
        </div>
      )}
    </div>
  );
}

/** Guards that are feared because they can silence a building: switched on where they cut nobody off. */
export function SwitchOn() {
  const [guard, setGuard] = useState<SafeGuard | null>(null);
  return (
    <Section title="Switch on safely">
      <div className="flex flex-wrap gap-[6px] px-4">
        {GUARDS.map((safeGuard) => (
          <button
            key={safeGuard}
            type="button"
            className="button !min-h-7"
            aria-pressed={guard === safeGuard}
            onClick={() => setGuard(guard === safeGuard ? null : safeGuard)}
          >
            {capital(SAFE_GUARDS[safeGuard])}
          </button>
        ))}
      </div>
      {guard === null ? (
        <p className="px-4 pt-2 text-13 text-ink2">
          Each shows what it would set and in which order, what it leaves out, and who would lose something.
        </p>
      ) : (
        <Ahead key={guard} guard={guard} />
      )}
    </Section>
  );
}
