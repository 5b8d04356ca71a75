"use client";

import { useState } from "react";
import { v7 } from "uuid";
import type { Issue, Sign, SignedAs } from "@/core/records";
import { Segmented } from "../../kit/Segmented";
import { usePlan } from "../../plan-store/use-plan";
import { useRecord } from "../../record-store/use-record";
import { Line } from "./Line";

const AS: readonly (readonly [SignedAs, string])[] = [
  ["checked", "Checked"],
  ["accepted", "Accepted"],
];
/** Years of five digits, which a date field takes, are slips. */
const A_DAY = /^\d{4}-\d{2}-\d{2}$/;
const today = (): string => new Date().toISOString().slice(0, 10);

/** Somebody puts their name to a sheet: whoever looked it through, or the customer. */
export function SignSheet({ issue, isChecked }: { issue: Issue; isChecked: boolean }) {
  const person = usePlan((state) => state.person);
  const { add } = useRecord();
  const [as, setAs] = useState<SignedAs>(isChecked ? "accepted" : "checked");
  const [name, setName] = useState("");
  const [day, setDay] = useState(today);
  const [note, setNote] = useState("");
  const who = name.trim() === "" && as === "checked" ? person : name.trim();
  const sign = () => {
    const entry: Sign = {
      id: v7(),
      at: new Date().toISOString(),
      do: "sign",
      issue: issue.id,
      ...{ as, name: who, day, note: note.trim() },
    };
    add(entry, []);
    setName("");
    setNote("");
  };
  return (
    <form
      aria-label="Sign"
      className="flex flex-col gap-2 px-4 py-3 text-13"
      onSubmit={(event) => {
        event.preventDefault();
        sign();
      }}
    >
      <Segmented label="Signed as" value={as} choices={AS} onChoose={setAs} />
      <Line
        label={as === "checked" ? `Who checked it (${person}, where nobody else is named)` : "Who accepts it"}
        value={name}
        onChange={setName}
        most={120}
      />
      <Line label="On" type="date" value={day} onChange={setDay} most={10} />
      <Line label="Remarks" value={note} onChange={setNote} most={2000} />
      <button type="submit" className="button" disabled={who === "" || !A_DAY.test(day)}>
        {as === "checked" ? "Write down as checked" : "Write down as accepted"}
      </button>
    </form>
  );
}
