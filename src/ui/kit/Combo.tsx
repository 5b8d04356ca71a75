"use client";

import { clsx } from "clsx";
import { Command } from "cmdk";
import { Popover } from "radix-ui";
import { useState } from "react";

export interface Choice {
  readonly value: string;
  readonly label: string;
  readonly detail?: string;
  readonly group?: string;
}
const MOST_SHOWN = 60;

/** The choices that each word of a text stands in: what is called so before what stands there. */
function choicesWith(choices: readonly Choice[], text: string): Choice[] {
  const words = text.trim().toLowerCase().split(/\s+/);
  const isIn = (where: string) => words.every((word) => where.toLowerCase().includes(word));
  const found = choices.filter(({ label, detail, group }) => isIn(`${label} ${detail ?? ""} ${group ?? ""}`));
  return [...found.filter(({ label }) => isIn(label)), ...found.filter(({ label }) => !isIn(label))];
}

/** A choice out of many by typing part of its name. */
export function Combo({
  label,
  value,
  choices,
  onChoose,
  empty,
}: {
  label: string;
  value: string;
  choices: readonly Choice[];
  onChoose: (value: string) => void;
  empty: string;
}) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const found = choicesWith(choices, text);
  const shown = found.slice(0, MOST_SHOWN);
  const groups = [...new Set(shown.map((choice) => choice.group ?? ""))];
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setText("");
      }}
    >
      <Popover.Trigger
        className="button max-w-64 !border-ink !font-semibold"
        aria-label={`${label}: ${choices.find((c) => c.value === value)?.label ?? empty}`}
      >
        <span className="truncate">{choices.find((c) => c.value === value)?.label ?? empty}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          aria-label={label}
          className="z-40 w-80 rounded border border-ink bg-panel p-2"
        >
          <Command shouldFilter={false} label={label}>
            <Command.Input
              value={text}
              onValueChange={setText}
              placeholder="Type part of the name"
              className="field mb-1 w-full"
            />
            <Command.List className="max-h-72 overflow-auto text-13">
              <Command.Empty className="p-2 text-ink2">No match.</Command.Empty>
              {groups.map((group) => (
                <Command.Group
                  key={group}
                  heading={group}
                  className={clsx(
                    "[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-1",
                    "[&_[cmdk-group-heading]]:text-12 [&_[cmdk-group-heading]]:text-ink2",
                  )}
                >
                  {shown
                    .filter((choice) => (choice.group ?? "") === group)
                    .map((choice) => (
                      <Command.Item
                        key={choice.value}
                        value={choice.value}
                        className={clsx(
                          "flex min-h-7 cursor-pointer items-center gap-2 rounded px-2",
                          "data-[selected=true]:bg-act-wash",
                        )}
                        onSelect={() => {
                          onChoose(choice.value);
                          setOpen(false);
                        }}
                      >
                        {choice.label}
                        <span className="ml-auto truncate text-12 text-ink2">{choice.detail}</span>
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
              {found.length > MOST_SHOWN ? (
                <p className="p-2 text-12 text-ink2">
                  {found.length - MOST_SHOWN} more; type more of the name.
                </p>
              ) : null}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
