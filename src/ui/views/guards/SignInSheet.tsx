"use client";

import dynamic from "next/dynamic";
import { useMemo, useRef, useState } from "react";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import type { Device } from "@/core/plan";
import { counted } from "@/core/repairs";
import { whoTable } from "@/core/sheets";
import { signInSwitches, timeAt, whoGetsIn, type WhoRow } from "@/core/guards";
import { SignInTable } from "./SignInTable";
import { WhoTable } from "./WhoTable";

// Charts are large: whoever looks at no times does not wait for them.
const TimeChart = dynamic(() => import("./TimeChart").then((m) => m.TimeChart), { loading: () => null });

/** More ports than these are shown switch by switch. */
const MOST_AT_ONCE = 60;

interface HeadProps {
  readonly rows: readonly WhoRow[];
  readonly switches: readonly Device[];
  /** The switch that is shown; null for all. */
  readonly at: string | null;
  /** Whether all can be shown at once. */
  readonly hasAll: boolean;
  readonly choose: (device: string | null) => void;
}

/** How many rows differ, which switch is shown, and the table as a file. */
function WhoHead({ rows, switches, at, hasAll, choose }: HeadProps) {
  const index = useIndex();
  const differing = rows.filter(
    ({ cells, stranger }) =>
      stranger.differs || (cells !== null && Object.values(cells).some(({ differs }) => differs)),
  ).length;
  const save = () =>
    download(fileName(index.plan.site.name, "who-gets-in.csv"), CSV_TYPE, csv(whoTable(index, rows)));
  return (
    <div className="flex min-h-10 flex-wrap items-center gap-3 px-4 py-1">
      <h2 className="text-15">Who gets in</h2>
      <span className="text-13 text-ink2">
        {rows.length === 0
          ? ""
          : `${counted(differing, "row differs", "rows differ")} from what is meant; hatched stays out`}
      </span>
      <span className="flex-1" />
      {switches.length < 2 ? null : (
        <label className="flex items-center gap-2 text-13">
          Switch
          <select
            className="field h-7"
            value={at ?? ""}
            onChange={(event) => choose(event.target.value === "" ? null : event.target.value)}
          >
            {hasAll ? <option value="">all</option> : null}
            {switches.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      {rows.length === 0 ? null : (
        <button type="button" className="button !min-h-7" onClick={save}>
          Save as CSV
        </button>
      )}
    </div>
  );
}

/** From link up to network for what is selected in the table. */
function ChosenTime() {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  if (selection?.what !== "entry") return null;
  const host = index.plan.host.get(selection.host ?? "");
  const port = index.plan.port.get(selection.port);
  const time =
    host === undefined || port === undefined ? null : timeAt(index, port, host, selection.situation);
  return time === null || host === undefined ? null : <TimeChart time={time} host={host} />;
}

/** Sign-in at ports: who gets in and when, and the profiles that decide it. */
export function SignInSheet({ asking }: { asking: number }) {
  const index = useIndex();
  const scroller = useRef<HTMLDivElement>(null);
  const switches = useMemo(() => signInSwitches(index), [index]);
  const [chosen, setChosen] = useState<string | null>(null);
  // Many ports are asked switch by switch: each is a probe in every situation.
  const isMany = asking > MOST_AT_ONCE;
  const known = switches.some(({ id }) => id === chosen) ? chosen : null;
  const at = known ?? (isMany ? (switches[0]?.id ?? null) : null);
  const rows = useMemo(() => whoGetsIn(index, at), [index, at]);
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
      <WhoHead rows={rows} switches={switches} at={at} hasAll={!isMany} choose={setChosen} />
      {rows.length === 0 ? (
        <p className="max-w-[62ch] px-4 pb-4 text-15">
          No port asks for a sign-in yet. Add a profile below; it begins at the stage watch, where nobody is
          cut off. Then select ports on Ports and switch 802.1X on in the margin.
        </p>
      ) : (
        <WhoTable rows={rows} />
      )}
      <ChosenTime />
      <SignInTable scroller={scroller} />
    </div>
  );
}
