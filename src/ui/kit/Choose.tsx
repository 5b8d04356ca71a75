"use client";

import { useId } from "react";

/** A choice of a few in the margin, its label beside it. */
export function Choose<V extends string>({
  label,
  value,
  choices,
  onChoose,
}: {
  label: string;
  value: V;
  choices: readonly (readonly [V, string])[];
  /** The value, and the words that it is chosen by: what History says. */ onChoose: (
    value: V,
    words: string,
  ) => void;
}) {
  const id = useId();
  return (
    <div className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13">
      <label htmlFor={id} className="text-ink2">
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value}
        onChange={(event) => {
          const chosen = choices.find(([choice]) => choice === event.target.value);
          if (chosen !== undefined) onChoose(chosen[0], chosen[1]);
        }}
      >
        {choices.map(([choice, words]) => (
          <option key={choice} value={choice}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}
