"use client";

import { useMemo, useState } from "react";
import { v7 } from "uuid";
import {
  asPrinted,
  LABEL_KINDS,
  labelsOf,
  lastPrint,
  newLabels,
  type Label,
  type LabelKind,
} from "@/core/labels";
import type { PlanIndex } from "@/core/plan";
import { counted } from "@/core/repairs";
import { formFault, LABEL_FORMS, type LabelForm, type LabelFormName } from "@/paper/label-sheets";
import { Chip } from "../../../tape/Chip";
import { useRecord } from "../../../record-store/use-record";
import { issuedText } from "../../../kit/day-text";
import { Line } from "../Line";
import { formOf, LabelFormFields, USUAL_FORM, type OwnForm } from "./LabelFormFields";
import { useLabels, type LabelWork } from "./use-labels";

const KIND_WORDS: Readonly<Record<LabelKind, string>> = {
  cable: "Cables, both ends",
  socket: "Sockets",
  port: "Ports in use",
  cabinet: "Cabinets",
  device: "Devices",
};
const OWN = "own";
type FormName = LabelFormName | typeof OWN;
const FORM_NAMES = Object.keys(LABEL_FORMS) as LabelFormName[];
/** More than that nobody reads here. */
const MOST_SHOWN = 200;

const formNamed = (name: FormName, own: OwnForm): LabelForm =>
  name === OWN ? formOf(own) : LABEL_FORMS[name];

/** Which places of the first sheet are used up: a whole number, or a sentence. */
function skipOf(text: string, { columns, rows }: LabelForm): number | string {
  const first = Number(text);
  return Number.isInteger(first) && first >= 1 && first <= columns * rows
    ? first - 1
    : `The first free place is a whole number from 1 to ${columns * rows}.`;
}

/** Labels of what there is, printed only where something is new since the last time. */
export function Labels({ index }: { index: PlanIndex }) {
  const { record, add } = useRecord();
  const { linkBase } = index.plan.site.paper;
  const [kinds, setKinds] = useState<readonly LabelKind[]>(["cable", "socket", "port"]);
  const [isAll, setAll] = useState(false);
  const [name, setName] = useState<FormName>(FORM_NAMES[0] ?? OWN);
  const [own, setOwn] = useState(USUAL_FORM);
  const [first, setFirst] = useState("1");
  const { work, make, forget } = useLabels();
  const all = useMemo(() => labelsOf(index, kinds), [index, kinds]);
  const fresh = useMemo(() => newLabels(all, linkBase, record), [all, linkBase, record]);
  const labels = isAll ? all : fresh;
  const form = formNamed(name, own);
  const fault = formFault(form);
  const skip = fault === null ? skipOf(first, form) : 0;
  const refusal = fault ?? (typeof skip === "string" ? skip : null);
  const last = lastPrint(record);
  const ask = (as: "pdf" | "svg") =>
    typeof skip === "number" ? void make({ labels, form, skip, as }) : undefined;
  const note = (printed: LabelWork & { is: "made" }) => {
    add(
      { id: v7(), at: new Date().toISOString(), do: "labels", printed: asPrinted(printed.labels, linkBase) },
      [],
    );
    forget();
  };
  const isOff = labels.length === 0 || refusal !== null || work.is === "working";
  return (
    <div className="grid min-[1100px]:grid-cols-2">
      <section aria-label="Labels" className="border-hair text-13 min-[1100px]:border-r">
        <h2 className="px-4 pt-3 text-15">
          Labels <span className="text-13 font-normal text-ink2">{freshText(fresh.length, last, index)}</span>
        </h2>
        <Kinds kinds={kinds} onKinds={setKinds} isAll={isAll} onAll={setAll} />
        <div className="flex flex-wrap items-end gap-3 px-4 pt-2">
          <label className="flex flex-col text-ink2">
            Form
            <select
              className="field mt-1 text-ink"
              value={name}
              onChange={(event) => setName(event.target.value as FormName)}
            >
              {FORM_NAMES.map((name) => (
                <option key={name}>{name}</option>
              ))}
              <option value={OWN}>measures of my own</option>
            </select>
          </label>
          <div className="w-36">
            <Line label="First free place" value={first} most={4} onChange={setFirst} />
          </div>
        </div>
        {name === OWN ? <LabelFormFields own={own} onChange={setOwn} /> : null}
        {refusal === null ? null : (
          <p role="alert" className="px-4 pt-2 text-stop">
            {refusal}
          </p>
        )}
        <p className="flex flex-wrap items-center gap-2 px-4 py-3">
          <button type="button" className="button go" disabled={isOff} onClick={() => ask("pdf")}>
            {labels.length === 0 ? "Nothing to print" : `PDF of ${counted(labels.length, "label", "labels")}`}
          </button>
          <button type="button" className="button" disabled={isOff} onClick={() => ask("svg")}>
            SVG
          </button>
        </p>
        <Outcome work={work} onNote={note} />
        {linkBase === "" ? (
          <p className="px-4 pb-3 text-ink2">
            These labels have no code: say under Papers where Dianome is, and each gets one that opens what it
            is on.
          </p>
        ) : null}
      </section>
      <section aria-label="What is printed" className="text-13">
        <LabelList labels={labels} />
      </section>
    </div>
  );
}
/** What labels are made for, and whether those that were printed already are made again. */
const Kinds = ({
  kinds,
  onKinds,
  isAll,
  onAll,
}: {
  kinds: readonly LabelKind[];
  onKinds: (kinds: readonly LabelKind[]) => void;
  isAll: boolean;
  onAll: (isAll: boolean) => void;
}) => (
  <fieldset className="px-4 pt-2">
    <legend className="sr-only">For</legend>
    {LABEL_KINDS.map((kind) => (
      <label key={kind} className="flex min-h-7 items-center gap-2">
        <input
          type="checkbox"
          checked={kinds.includes(kind)}
          onChange={({ target }) =>
            onKinds(target.checked ? [...kinds, kind] : kinds.filter((other) => other !== kind))
          }
        />
        {KIND_WORDS[kind]}
      </label>
    ))}
    <label className="mt-1 flex min-h-7 items-center gap-2 border-t border-hair pt-1">
      <input type="checkbox" checked={isAll} onChange={({ target }) => onAll(target.checked)} />
      Those that were printed as they are, too
    </label>
  </fieldset>
);

const LabelList = ({ labels }: { labels: readonly Label[] }) => (
  <>
    <ul>
      {labels.slice(0, MOST_SHOWN).map(({ key, title, lines, tapes }) => (
        <li key={key} className="flex min-h-9 items-center gap-2 border-b border-hair px-4">
          <b className="font-semibold [overflow-wrap:anywhere]">{title}</b>
          <span className="min-w-0 flex-1 truncate text-ink2" title={lines.join("; ")}>
            {lines.join("; ")}
          </span>
          {tapes.slice(0, MOST_CHIPS).map((tape) => (
            <Chip key={tape.vid} tape={tape} name={tape.name} />
          ))}
          {tapes.length > MOST_CHIPS ? <span className="text-ink2">+{tapes.length - MOST_CHIPS}</span> : null}
        </li>
      ))}
    </ul>
    {labels.length > MOST_SHOWN ? (
      <p className="p-4 text-ink2">and {labels.length - MOST_SHOWN} more</p>
    ) : null}
  </>
);
const MOST_CHIPS = 4;

function freshText(fresh: number, last: string | null, index: PlanIndex): string {
  if (last === null) return "none was printed yet";
  const since = issuedText(last, index.plan.site.timeZone);
  return fresh === 0 ? `nothing new since ${since}` : `${fresh} new since ${since}`;
}

function Outcome({ work, onNote }: { work: LabelWork; onNote: (work: LabelWork & { is: "made" }) => void }) {
  switch (work.is) {
    case "idle":
      return null;
    case "working":
      return (
        <p role="status" className="px-4 pb-3">
          The labels are set …
        </p>
      );
    case "refused":
      return (
        <p role="alert" className="px-4 pb-3 text-stop">
          {work.sentence}
        </p>
      );
    case "made":
      return (
        <div className="px-4 pb-3">
          <p role="status" className="pb-2 text-sound">
            {work.says}
          </p>
          <button type="button" className="button" onClick={() => onNote(work)}>
            They came out well: note {counted(work.labels.length, "label", "labels")} as printed
          </button>
        </div>
      );
  }
}
