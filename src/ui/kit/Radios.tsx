"use client";

import { RadioGroup } from "radix-ui";
import { useRef } from "react";

interface Props<V extends string> {
  readonly label: string;
  readonly value: V;
  readonly choices: readonly (readonly [V, string])[];
  readonly onChoose: (value: V) => void;
  readonly across?: boolean;
}

/**
 * A choice of a few, all in sight. An arrow chooses what it moves to, however short the key is held: the
 * primitive itself moves the focus a moment later, and chooses only if the key is still down by then.
 */
export function Radios<V extends string>({ label, value, choices, onChoose, across = false }: Props<V>) {
  const byArrow = useRef(false);
  const choose = (text: string) => {
    const chosen = choices.find(([choice]) => choice === text);
    if (chosen !== undefined && chosen[0] !== value) onChoose(chosen[0]);
  };
  return (
    <RadioGroup.Root
      value={value}
      onValueChange={choose}
      aria-label={label}
      className={`flex px-4 text-13 ${across ? "flex-wrap gap-x-4 gap-y-1" : "flex-col gap-1"}`}
      onKeyDownCapture={(event) => {
        byArrow.current = event.key.startsWith("Arrow");
      }}
      onPointerDownCapture={() => {
        byArrow.current = false;
      }}
    >
      {choices.map(([choice, words]) => (
        <label key={choice} className="flex min-h-6 items-center gap-2">
          <RadioGroup.Item
            value={choice}
            className="h-4 w-4 rounded-full border border-rule bg-panel"
            onFocus={(event) => {
              if (byArrow.current) choose(choice);
              byArrow.current = false;
              event.preventDefault();
            }}
          >
            <RadioGroup.Indicator className="m-auto block h-2 w-2 rounded-full bg-act" />
          </RadioGroup.Item>
          {words}
        </label>
      ))}
    </RadioGroup.Root>
  );
}
