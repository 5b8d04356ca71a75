"use client";

import { clsx } from "clsx";
import { ToggleGroup } from "radix-ui";
import { useRef } from "react";

interface Props<V extends string> {
  readonly label: string;
  readonly value: V;
  readonly choices: readonly (readonly [V, string])[];
  readonly onChoose: (value: V) => void;
}

/**
 * A choice of a few ways to see one thing, side by side; an arrow chooses what it moves to, as among radio
 * buttons.
 */
export function Segmented<V extends string>({ label, value, choices, onChoose }: Props<V>) {
  const byArrow = useRef(false);
  const choose = (text: string) => {
    const chosen = choices.find(([choice]) => choice === text);
    if (chosen !== undefined && chosen[0] !== value) onChoose(chosen[0]);
  };
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      aria-label={label}
      className="flex flex-none flex-wrap max-[480px]:flex-initial"
      onValueChange={choose}
      onKeyDownCapture={(event) => {
        byArrow.current = event.key.startsWith("Arrow");
      }}
      onPointerDownCapture={() => {
        byArrow.current = false;
      }}
    >
      {choices.map(([choice, words]) => (
        <ToggleGroup.Item
          key={choice}
          value={choice}
          onFocus={() => {
            if (byArrow.current) choose(choice);
            byArrow.current = false;
          }}
          className={clsx(
            "-ml-px min-h-7 border border-rule bg-panel px-[10px] text-13 first:ml-0",
            "first:rounded-l last:rounded-r hover:bg-hover data-[state=on]:z-[1]",
            "data-[state=on]:border-act data-[state=on]:bg-act-wash data-[state=on]:font-semibold",
          )}
        >
          {words}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
