"use client";

import { useState, type ReactNode } from "react";
import { v7 } from "uuid";
import { comparedTable } from "@/core/comparison";
import type { Plan } from "@/core/plan";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { planOfFile } from "../../plan-store/plan-of-file";
import { useHeld } from "../../plan-store/use-plan";
import { ComparedSheet } from "../handover/Differences";
import { useFilePlan, useRevisions, type ComparedState } from "../handover/use-compared";

interface PlanFile {
  /** Two files can have one name. */
  readonly id: string;
  readonly name: string;
  readonly plan: Plan;
}
/** What is compared: two revisions, or a plan file with a later one; null stands for the plan as it is. */
type Asked =
  | { readonly from: number; readonly to: number | null }
  | { readonly file: PlanFile; readonly later: PlanFile | null };

/** Two states beside one another: asked for, since an old one takes a while. */
export function CompareRevisions() {
  const { revision, index } = useHeld();
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [asked, setAsked] = useState<Asked | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [first, last] = [Number(from || revision - 1), Number(to || revision)];
  const isPair = Number.isInteger(first) && Number.isInteger(last) && first >= 1 && first < last;
  const earlier = asked !== null && "file" in asked ? asked.file : null;
  const read = async (file: File, ask: (read: PlanFile) => Asked) => {
    setAsked(null);
    const plan = await planOfFile(index, file);
    setRefusal(typeof plan === "string" ? plan : null);
    if (typeof plan !== "string") setAsked(ask({ id: v7(), name: file.name, plan }));
    else if (earlier !== null) setAsked({ file: earlier, later: null });
  };
  return (
    <section aria-label="Compare revisions" className="border-b border-ink text-13">
      <form
        className="flex flex-wrap items-center gap-2 px-4 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          setRefusal(null);
          setAsked({ from: first, to: last >= revision ? null : last });
        }}
      >
        <h2 className="text-15">Compare</h2>
        {revision < 2 ? null : (
          <>
            <Revision label="Revision" value={from} empty={revision - 1} onChange={setFrom} />
            <span className="text-ink2">with</span>
            <Revision label="Later revision" value={to} empty={revision} onChange={setTo} />
            <button type="submit" className="button" disabled={!isPair}>
              Compare
            </button>
          </>
        )}
        {asked === null ? null : (
          <button type="button" className="button" onClick={() => setAsked(null)}>
            Close
          </button>
        )}
        {isPair || revision < 2 ? null : (
          <p role="alert" className="text-warn">
            The first one has to be earlier: 1 to {revision - 1}.
          </p>
        )}
        <ChooseFile
          label="Plan file to compare with"
          onFile={(file) => void read(file, (planFile) => ({ file: planFile, later: null }))}
        >
          {revision < 2 ? "a plan file" : "or a plan file"} with the plan as it is:
        </ChooseFile>
        {earlier === null ? null : (
          <ChooseFile
            label="Later plan file"
            onFile={(file) => void read(file, (later) => ({ file: earlier, later }))}
          >
            or {earlier.name} with a later plan file:
          </ChooseFile>
        )}
        {refusal === null ? null : (
          <p role="alert" className="w-full text-stop">
            {refusal}
          </p>
        )}
      </form>
      <Result asked={asked} />
    </section>
  );
}

function ChooseFile({
  label,
  onFile,
  children,
}: {
  label: string;
  onFile: (file: File) => void;
  children: ReactNode;
}) {
  return (
    <label className="flex min-h-6 flex-wrap items-center gap-2 text-ink2">
      {children}
      <input
        type="file"
        accept=".json,application/json"
        aria-label={label}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file !== undefined) onFile(file);
          event.target.value = "";
        }}
      />
    </label>
  );
}

function Revision({
  label,
  value,
  empty,
  onChange,
}: {
  label: string;
  value: string;
  /** What stands for nothing typed. */
  empty: number;
  onChange: (text: string) => void;
}) {
  return (
    <input
      aria-label={label}
      className="field mono w-20"
      inputMode="numeric"
      maxLength={9}
      placeholder={String(empty)}
      value={value}
      onChange={(event) => onChange(event.target.value.trim())}
    />
  );
}

function Result({ asked }: { asked: Asked | null }) {
  if (asked === null) return null;
  if ("file" in asked) return <WithFile key={`${asked.file.id} ${asked.later?.id ?? "now"}`} {...asked} />;
  return <WithRevision key={`${asked.from} ${asked.to ?? "now"}`} {...asked} />;
}

function WithRevision({ from, to }: { from: number; to: number | null }) {
  const state = useRevisions(from, to);
  const name = `revision-${from}-to-${to ?? "now"}.csv`;
  return <Compared state={state} name={name} from={to === null ? `revision ${from}` : null} />;
}

/** A file with the plan as it is, or with a later file; which of two is the later one can be turned round. */
function WithFile({ file, later: asked }: { file: PlanFile; later: PlanFile | null }) {
  const [isTurned, setTurned] = useState(false);
  const [earlier, later] = isTurned && asked !== null ? [asked, file] : [file, asked];
  const state = useFilePlan(earlier, later);
  return (
    <>
      <h3 className="px-4 pb-2 text-13 font-semibold">
        {later === null
          ? `${earlier.name}, and what has changed since`
          : `${earlier.name}, and what is otherwise in ${later.name}`}
      </h3>
      {later === null ? null : (
        <p className="px-4 pb-2">
          <button type="button" className="button" onClick={() => setTurned(!isTurned)}>
            The other way round
          </button>
        </p>
      )}
      <Compared
        state={state}
        name={later === null ? "file-to-now.csv" : "file-to-file.csv"}
        from={later === null ? earlier.name : null}
      />
    </>
  );
}

/** What differs; `from` names what things can be brought back from, null where nothing can. */
function Compared({ state, name, from }: { state: ComparedState; name: string; from: string | null }) {
  const { index } = useHeld();
  return (
    <div className="pb-2">
      {state.is === "compared" && state.compared.groups.length > 0 ? (
        <p className="px-4 pb-2">
          <button
            type="button"
            className="button"
            onClick={() =>
              download(
                fileName(index.plan.site.name, name),
                CSV_TYPE,
                csv(comparedTable(state.compared.groups)),
              )
            }
          >
            Save CSV
          </button>
        </p>
      ) : null}
      <ComparedSheet state={state} from={from} />
    </div>
  );
}
