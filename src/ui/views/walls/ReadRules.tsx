"use client";

import { replaceRules } from "@/core/commands";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { isRuleData, readRuleData } from "@/core/formats";
import type { Device, PlanIndex } from "@/core/plan";
import { readRuleTable, type RulesRead } from "@/core/planners";
import { counted } from "@/core/repairs";
import { rowsIn, tooLarge } from "../../kit/table-text";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const MOST_SENTENCES = 50;

/** The rules in a text: a table, or JSON with access lists or with rules; a sentence where there are none. */
function rulesIn(index: PlanIndex, device: Device, text: string): RulesRead | string {
  if (isRuleData(text)) return readRuleData(index, device, text);
  const found = rowsIn(text);
  return "refusal" in found ? found.refusal : readRuleTable(index, found.rows);
}

/** Reads the list that stands on a device from a text: everything is read before anything is written. */
export function ReadRules({ device, close }: { device: Device; close: () => void }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [text, setText] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const read = useMemo(() => (text === null ? null : rulesIn(index, device, text)), [index, device, text]);
  const take = (taken: string) => {
    setRefusal(null);
    setText(taken);
  };
  const open = async (file: File | undefined) => {
    if (file === undefined) return;
    const why = tooLarge(file);
    if (why !== null) return setRefusal(why);
    take(await file.text());
  };
  const write = () => {
    if (read === null || typeof read === "string") return;
    const refused = edit(replaceRules({ device: device.id, rules: read.rules }));
    if (refused !== null) return toast.error(refused);
    toast(
      `${counted(read.rules.length, "rule stands", "rules stand")} on ${device.name} now. Undo takes it back.`,
    );
    close();
  };
  const said = refusal ?? (typeof read === "string" ? read : null);
  return (
    <section
      aria-label="Read a rule list"
      className="flex max-h-[60%] min-h-[220px] flex-col border-t border-ink bg-paper"
    >
      <div className="flex min-h-10 flex-none flex-wrap items-center gap-2 border-b border-hair px-4">
        <h2 className="text-15">Read a rule list</h2>
        <span className="text-13 text-ink2">what stands on {device.name}, one rule a line</span>
        <span className="flex-1" />
        <input
          type="file"
          aria-label="File with rules"
          accept=".csv,.txt,.json,text/csv,text/plain,application/json"
          className="field h-8 w-60 py-1"
          onChange={(event) => {
            void open(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
        <button type="button" className="button" onClick={close}>
          Close
        </button>
      </div>
      {said === null ? null : (
        <p role="alert" className="mx-4 mt-2 border border-stop bg-stop-wash p-2 text-13 text-stop">
          {said}
        </p>
      )}
      {read === null || typeof read === "string" ? (
        <PasteRules take={take} />
      ) : (
        <WhatWasRead
          read={read}
          had={index.rulesOf(device.id).length}
          write={write}
          again={() => setText(null)}
        />
      )}
    </section>
  );
}

function PasteRules({ take }: { take: (text: string) => void }) {
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2 p-4">
      <label className="text-13 text-ink2" htmlFor="pasted-rules">
        or paste here: rows of from, to, services, action, note, whose ends are names of this plan, addresses,
        subnets, Internet, Gateway or any; or JSON, as rules or as access lists (RFC 8519). Nothing is written
        before you say so
      </label>
      <textarea
        id="pasted-rules"
        className="field mono min-h-24 flex-1 resize-none !h-auto p-2"
        spellCheck={false}
        onPaste={(event) => {
          take(event.clipboardData.getData("text/plain"));
          event.preventDefault();
        }}
        onChange={(event) => {
          if (event.target.value.includes("\n")) take(event.target.value);
        }}
        placeholder={'From,To,Services,Action,Note\nKit,Servers,"https, tcp 8443",accept,the controller'}
      />
    </div>
  );
}

function WhatWasRead({
  read,
  had,
  write,
  again,
}: {
  read: RulesRead;
  had: number;
  write: () => void;
  again: () => void;
}) {
  const { rules, faults, notes } = read;
  return (
    <>
      <div className="flex flex-none flex-wrap items-center gap-3 px-4 py-2 text-13" role="status">
        <b className="font-semibold text-sound">{counted(rules.length, "rule", "rules")} read</b>
        <b className={`font-semibold ${faults.length > 0 ? "text-stop" : "text-ink2"}`}>
          {counted(faults.length, "line", "lines")} can’t be read
        </b>
        <span className="flex-1" />
        <button type="button" className="button" onClick={again}>
          Another text
        </button>
        <button type="button" className="button go" disabled={rules.length === 0} onClick={write}>
          {had === 0 ? "Write them" : `Put them in place of ${counted(had, "rule", "rules")}`}
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-auto px-4 pb-3 text-13" tabIndex={0}>
        <Sentences className="text-stop" label="What can’t be read" sentences={faults} />
        <Sentences className="text-warn" label="What a rule can’t say" sentences={notes} />
      </div>
    </>
  );
}

function Sentences({
  className,
  label,
  sentences,
}: {
  className: string;
  label: string;
  sentences: readonly string[];
}) {
  return sentences.length === 0 ? null : (
    <ul aria-label={label} className={className}>
      {sentences.slice(0, MOST_SENTENCES).map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
      {sentences.length > MOST_SENTENCES ? <li>and {sentences.length - MOST_SENTENCES} more</li> : null}
    </ul>
  );
}
