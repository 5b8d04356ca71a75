"use client";

import { ToggleGroup } from "radix-ui";

interface Props<V extends string> { readonly label: string; readonly value: V; readonly choices: readonly (readonly [V, string])[]; readonly onChoose: (value: V) => void }

/** A choice of a few ways to see one thing, side by side. */
export function Segmented<V extends string>({ label, value, choices, onChoose }: Props<V>) {
  return (
    <ToggleGroup.Root type="single" value={value} aria-label={label} className="flex flex-none" onValueChange={(text) => { const chosen = choices.find(([one]) => one === text); if (chosen !== undefined) onChoose(chosen[0]); }}>
      {choices.map(([one, words]) => (
        <ToggleGroup.Item key={one} value={one} className="-ml-px min-h-7 border border-rule bg-panel px-[10px] text-13 first:ml-0 first:rounded-l last:rounded-r hover:bg-hover data-[state=on]:z-[1] data-[state=on]:border-act data-[state=on]:bg-act-wash data-[state=on]:font-semibold">{words}</ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
