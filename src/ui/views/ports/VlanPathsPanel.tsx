"use client";

import { clsx } from "clsx";
import { carryExactly } from "@/core/commands";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { counted } from "@/core/repairs";
import { mainDomain } from "@/core/planners";
import { pathCounts, vlanPaths } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { Filter } from "../../kit/Filter";
import { ProposalPanel, useProposal } from "../../margin/findings/Proposal";
import { useIndex } from "../../plan-store/use-plan";
import { PathGrid } from "./PathGrid";

/** More VLANs than this stand in no window; the filter finds the rest. */
const MOST_COLUMNS = 40;

/** One VLAN's path across all devices, and all of them beside one another. */
// eslint-disable-next-line max-lines-per-function, complexity -- one panel: the VLAN, its path, what is wrong
export function VlanPathsPanel() {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const { shown, look, apply, cancel } = useProposal();
  const domains = [...index.plan.domain.values()];
  const [wanted, setWanted] = useState<string | null>(null);
  const domain =
    domains.find((domain) => domain.id === wanted)?.id ?? mainDomain(index.plan) ?? domains[0]?.id ?? null;
  const [which, setWhich] = useState<"between gear" | "all">("between gear");
  const [filter, setFilter] = useState("");
  const [chosen, setChosen] = useState<number | null>(null);
  const paths = useMemo(() => vlanPaths(index, domain, which), [index, domain, which]);
  const counts = useMemo(
    () => new Map(paths.tapes.map((tape) => [tape.vid, pathCounts(paths, tape.vid)])),
    [paths],
  );
  const words = filter.trim().toLowerCase();
  const found = paths.tapes.filter(
    (tape) => words === "" || `${tape.vid} ${tape.name} ${tape.mark}`.toLowerCase().includes(words),
  );
  const tapes = found.slice(0, MOST_COLUMNS);
  const total = [...counts.values()].reduce(
    (sum, count) => ({ missing: sum.missing + count.missing, needless: sum.needless + count.needless }),
    { missing: 0, needless: 0 },
  );
  const choose = (vid: number) => {
    const next = chosen === vid ? null : vid;
    setChosen(next);
    const segment = next === null ? undefined : index.segmentOn(domain, next);
    select(segment === undefined ? null : { what: "segment", id: segment.id });
  };
  const repair = () => {
    const refusal = look(carryExactly({}));
    if (refusal !== null) toast.error(refusal);
  };
  if (paths.devices.length === 0)
    return (
      <p className="max-w-[60ch] p-4 text-15">
        Here every VLAN is followed across the gear. Cable two devices that know VLANs on Hardware; the ports
        between them then stand here.
      </p>
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2 text-13">
        {domains.length < 2 ? null : (
          <select
            aria-label="Domain"
            className="field"
            value={domain ?? ""}
            onChange={(event) => {
              setWanted(event.target.value);
              setChosen(null);
            }}
          >
            {domains.map((domain) => (
              <option key={domain.id} value={domain.id}>
                {domain.name}
              </option>
            ))}
          </select>
        )}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={which === "all"}
            onChange={(event) => setWhich(event.target.checked ? "all" : "between gear")}
          />
          ports of end devices, too
        </label>
        {paths.tapes.length <= 12 ? null : (
          <Filter label="Filter the VLANs" value={filter} onChange={setFilter} />
        )}
        {found.length > MOST_COLUMNS ? (
          <span className="text-ink2">
            {MOST_COLUMNS} of {found.length} VLANs; type part of a name or number
          </span>
        ) : null}
        <span className="flex-1" />
        <span className={total.missing > 0 ? "font-semibold text-stop" : "text-ink2"}>
          {total.missing} missing
        </span>
        <span className={total.needless > 0 ? "font-semibold text-warn" : "text-ink2"}>
          {total.needless} needless
        </span>
        <button
          type="button"
          className={total.missing + total.needless > 0 ? "button go" : "button"}
          disabled={total.missing + total.needless === 0}
          aria-expanded={shown !== null}
          onClick={repair}
        >
          Carry exactly what is needed
        </button>
      </div>
      {shown === null ? null : (
        <div className="max-h-72 flex-none overflow-auto px-4 pb-2">
          <ProposalPanel shown={shown} apply={apply} cancel={cancel}>
            <p className="mt-1 text-ink2">
              {counted(shown.batch.changes.length, "port is set", "ports are set")}, the same at both ends of
              each cable. On a live network set the far end first.
            </p>
          </ProposalPanel>
        </div>
      )}
      <PathGrid
        key={`${domain ?? ""} ${which}`}
        paths={paths}
        tapes={tapes}
        chosen={chosen}
        choose={choose}
        counts={counts}
      />
      <p
        className={clsx(
          "flex min-h-6 flex-none flex-wrap items-center gap-x-3 border-t border-hair px-4",
          "text-12 text-ink2",
        )}
      >
        <span>
          a click or Space: tagged or not; Shift or <b className="mono text-ink">U</b>: untagged
        </span>
        <span>
          <span className="mr-1 inline-block h-3 w-3 border-[1.5px] border-dashed border-stop align-[-2px]" />
          missing here
        </span>
        <span>
          <b className="mr-1 text-warn">╱</b>nobody needs it here
        </span>
      </p>
    </>
  );
}
