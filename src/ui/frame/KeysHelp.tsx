"use client";

import { clsx } from "clsx";
import { Switch } from "radix-ui";
import { Modal } from "../kit/Modal";
import { useUi } from "./use-ui";
import { VIEWS } from "./views";

const KEYS: readonly [string, string][] = [
  ["Ctrl K", "find anything, do anything"],
  ["P", "probe"],
  [
    "G then a number",
    `go to a sheet: ${VIEWS.flatMap((v) => (v.number === null ? [] : [`${v.number} ${v.title}`])).join(", ")}`,
  ],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo your own changes"],
  ["Arrows", "move in tables, rulers and grids"],
  ["Shift with arrows", "choose a block of cells or a run of ports"],
  ["Enter or F2, or just type", "edit a cell; Enter writes it, Esc leaves it as it was"],
  ["Esc", "nothing is chosen any more: the margin shows the whole sheet"],
  ["Ctrl C, Ctrl V", "copy and paste cells, also from and to a spreadsheet"],
  ["Ctrl D", "fill the block down from its first row"],
  ["Ctrl Shift D", "fill a series down: names and addresses count on"],
  ["Alt S", "sort the table by the column you are in"],
  ["U", "on VLAN paths: untagged here; Space tagged or not"],
  ["Delete", "empty a cell; Ctrl Delete removes the row"],
  ["?", "this list"],
];

export function KeysHelp() {
  const open = useUi((state) => state.helpOpen);
  const singleKeys = useUi((state) => state.singleKeys);
  const set = useUi((state) => state.set);
  return (
    <Modal open={open} onOpenChange={(helpOpen) => set({ helpOpen })} title="Keys">
      <dl className="grid grid-cols-[170px_1fr] gap-x-3 gap-y-2 text-13">
        {KEYS.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt>
              <kbd>{keys}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex items-center gap-2 text-13">
        <Switch.Root
          checked={singleKeys}
          onCheckedChange={(on) => set({ singleKeys: on })}
          className="h-6 w-10 rounded border border-rule bg-paper data-[state=checked]:bg-act"
        >
          <Switch.Thumb
            className={clsx(
              "block h-4 w-4 translate-x-[3px] rounded bg-ink2",
              "data-[state=checked]:translate-x-[19px] data-[state=checked]:bg-act-on",
            )}
          />
        </Switch.Root>
        Single letters work as keys
      </label>
    </Modal>
  );
}
