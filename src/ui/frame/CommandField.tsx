"use client";

import { Command } from "cmdk";
import { useState } from "react";
import { toast } from "sonner";
import { KIND_WORDS } from "@/core/plan";
import { find } from "@/core/sheets";
import { Modal } from "../kit/Modal";
import { useIndex, usePlan } from "../plan-store/use-plan";
import { useGoTo } from "./go-to";
import { useUi } from "./use-ui";
import { VIEWS } from "./views";

const MOST_HITS = 30;
const ITEM =
  "flex min-h-7 cursor-pointer items-center gap-3 rounded px-2 text-13 data-[selected=true]:bg-act-wash";
const GROUP =
  "[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 " +
  "[&_[cmdk-group-heading]]:text-12 [&_[cmdk-group-heading]]:text-ink2";

/** One field for finding and for doing: names, addresses, views and actions. */
export function CommandField() {
  const open = useUi((state) => state.commandOpen);
  const set = useUi((state) => state.set);
  return open ? (
    <Modal open onOpenChange={(commandOpen) => set({ commandOpen })} title="Find or do">
      <Search close={() => set({ commandOpen: false })} />
    </Modal>
  ) : null;
}

function Search({ close }: { close: () => void }) {
  const [text, setText] = useState("");
  const index = useIndex();
  const goTo = useGoTo();
  const ui = useUi((state) => state.set);
  const { undo, redo } = { undo: usePlan((state) => state.undo), redo: usePlan((state) => state.redo) };
  const steps = usePlan((state) => state.steps);
  const step = async (done: Promise<string | null>) => {
    const refusal = await done;
    if (refusal !== null) toast.error(refusal);
  };
  const actions: { name: string; run: () => void }[] = [
    ...VIEWS.map((view) => ({ name: `Go to ${view.title}`, run: () => goTo.view(view.key) })),
    ...(steps.undo === null ? [] : [{ name: `Undo: ${steps.undo}`, run: () => void step(undo()) }]),
    ...(steps.redo === null ? [] : [{ name: `Redo: ${steps.redo}`, run: () => void step(redo()) }]),
    { name: "Show all keys", run: () => ui({ helpOpen: true }) },
  ];
  const wanted = text.trim().toLowerCase();
  const shown = actions.filter((action) => wanted === "" || action.name.toLowerCase().includes(wanted));
  const hits = find(index, text, MOST_HITS);
  const done = (run: () => void) => {
    close();
    run();
  };
  return (
    <Command shouldFilter={false} label="Find or do">
      <Command.Input
        autoFocus
        value={text}
        onValueChange={setText}
        placeholder="A name, an address, a MAC, or what to do"
        className="field mb-2 h-9 w-full"
      />
      <Command.List className="max-h-[50vh] overflow-auto">
        <Command.Empty className="p-2 text-13 text-ink2">No match in this plan.</Command.Empty>
        {hits.length === 0 ? null : (
          <Command.Group heading="In the plan" className={GROUP}>
            {hits.map((hit) => (
              <Command.Item
                key={hit.id}
                value={hit.id}
                className={ITEM}
                onSelect={() => done(() => goTo.entity(hit))}
              >
                <span className="w-24 text-ink2">{KIND_WORDS[hit.kind]}</span>
                <span>{hit.name}</span>
                <span className="ml-auto truncate text-12 text-ink2">{hit.detail}</span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {shown.length === 0 ? null : (
          <Command.Group heading="Do" className={GROUP}>
            {shown.map((action) => (
              <Command.Item
                key={action.name}
                value={action.name}
                className={ITEM}
                onSelect={() => done(action.run)}
              >
                {action.name}
              </Command.Item>
            ))}
          </Command.Group>
        )}
      </Command.List>
    </Command>
  );
}
