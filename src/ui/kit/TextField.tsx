"use client";

import { useId, useState } from "react";
import type { Refusal } from "@/core/planners";

interface Props {
  readonly label: string;
  readonly value: string;
  readonly write: (text: string) => Refusal;
  readonly mono?: boolean;
  readonly offers?: readonly string[];
  readonly placeholder?: string;
}

/**
 * A field of the margin: Enter or leaving it writes, Esc takes it back; a refusal stands below and keeps what
 * was typed.
 */
export function TextField({ label, value, write, mono = false, offers = [], placeholder }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const id = useId();
  const finish = () => {
    if (typed === null || typed === value) return setTyped(null);
    const refused = write(typed);
    setRefusal(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <div className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13">
      <label htmlFor={id} className="text-ink2">
        {label}
      </label>
      <input
        id={id}
        value={typed ?? value}
        placeholder={placeholder}
        list={offers.length > 0 ? `${id}-offers` : undefined}
        aria-invalid={refusal !== null}
        autoComplete="off"
        spellCheck={false}
        aria-describedby={refusal === null ? undefined : `${id}-refusal`}
        className={`field ${mono ? "mono" : ""} ${refusal === null ? "" : "wrong"}`}
        onChange={(event) => {
          setTyped(event.target.value);
          setRefusal(null);
        }}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === "Enter") finish();
          if (event.key === "Escape") {
            setTyped(null);
            setRefusal(null);
          }
        }}
      />
      {offers.length > 0 ? (
        <datalist id={`${id}-offers`}>
          {offers.map((offer) => (
            <option key={offer} value={offer} />
          ))}
        </datalist>
      ) : null}
      {refusal === null ? null : (
        <p id={`${id}-refusal`} role="alert" className="col-start-2 py-1 text-stop">
          {refusal}
        </p>
      )}
    </div>
  );
}
