"use client";

import { adoptRules, filterBy } from "@/core/commands";
import { useState, type RefObject } from "react";
import { toast } from "sonner";
import { counted } from "@/core/repairs";
import { keepsState, type Device } from "@/core/plan";
import { Segmented } from "../../kit/Segmented";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { DifferenceTable } from "./DifferenceTable";
import { PlannedTable } from "./PlannedTable";
import { ProofStrip } from "./ProofStrip";
import { StandingTable } from "./StandingTable";
import { useLists } from "./use-lists";

type Shown = "planned" | "standing" | "difference";

interface Props {
  readonly device: Device;
  readonly devices: readonly Device[];
  readonly choose: (device: string) => void;
  readonly scroller: RefObject<HTMLDivElement | null>;
}

/** A device's rules: those that its walls need, those that stand on it, and what either comes to. */
export function RulesPanel({ device, devices, choose, scroller }: Props) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const lists = useLists(index, device);
  const isRuleChosen = useUi((state) => state.selection?.what === "rule");
  const [shown, setShown] = useState<Shown>(
    device.filter.list === "found" || isRuleChosen ? "standing" : "planned",
  );
  const adopt = () => {
    const refusal = edit(adoptRules({ device: device.id }));
    if (refusal !== null) return toast.error(refusal);
    setShown("standing");
    toast("They stand on the device now, in the plan. Undo takes it back.");
  };
  const standing = index.rulesOf(device.id).length;
  return (
    <section aria-label="Rules" className="border-t border-ink">
      <div className="flex min-h-10 flex-wrap items-center gap-2 px-4 py-1">
        <h2 className="text-15">Rules</h2>
        {devices.length > 1 ? (
          <select
            aria-label="On which device"
            className="field h-7 w-44"
            value={device.id}
            onChange={(event) => choose(event.target.value)}
          >
            {devices.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        ) : (
          <span className="text-13 text-ink2">on {device.name}</span>
        )}
        <span className="flex-1" />
        <Segmented
          label="Which rules"
          value={shown}
          choices={[
            ["planned", "What the walls need"],
            ["standing", `What stands on it, ${standing}`],
            ...(standing > 0 || shown === "difference"
              ? ([["difference", "Steps between them"]] as const)
              : []),
          ]}
          onChoose={setShown}
        />
        {shown === "planned" ? (
          <button type="button" className="button" onClick={adopt}>
            Note as entered
          </button>
        ) : null}
        {shown === "standing" ? <FilterBy device={device} /> : null}
      </div>
      {lists === null ? (
        <p role="status" className="px-4 pb-3 text-13 text-ink2">
          Working out the rules of {counted(index.plan.segment.size, "segment", "segments")} …
        </p>
      ) : null}
      <ShownRules shown={shown} device={device} lists={lists} scroller={scroller} />
      {lists === null ? null : <ProofOf shown={shown} lists={lists} />}
    </section>
  );
}

function ShownRules({
  shown,
  device,
  lists,
  scroller,
}: Pick<Props, "device" | "scroller"> & {
  readonly shown: Shown;
  readonly lists: ReturnType<typeof useLists>;
}) {
  if (shown === "standing")
    return <StandingTable device={device} standing={lists?.standing ?? null} scroller={scroller} />;
  if (lists === null) return null;
  return shown === "planned" ? <PlannedTable planned={lists.planned} /> : <DifferenceTable device={device} />;
}

function ProofOf({ shown, lists }: { shown: Shown; lists: NonNullable<ReturnType<typeof useLists>> }) {
  const timed = lists.planned.inHours.flatMap(({ rules }) => rules);
  if (shown === "planned")
    return (
      <ProofStrip
        proof={lists.plannedProof}
        rules={lists.planned.rules.length + timed.length + (keepsState(lists.planned.device) ? 2 : 1)}
        of={lists.planned}
        when={timed.length === 0 ? "" : ", inside and outside all hours"}
      />
    );
  return lists.standing === null || lists.standingProof === null ? null : (
    <ProofStrip proof={lists.standingProof} rules={lists.standing.rules.length} of={lists.standing} />
  );
}

/** By which list the simulation filters at the device. */
function FilterBy({ device }: { device: Device }) {
  const edit = usePlan((state) => state.edit);
  return (
    <label className="flex items-center gap-[6px] text-13">
      <input
        type="checkbox"
        checked={device.filter.list === "found"}
        onChange={(event) =>
          edit(filterBy({ device: device.id, fields: { list: event.target.checked ? "found" : "planned" } }))
        }
      />
      probes go by this list
    </label>
  );
}
