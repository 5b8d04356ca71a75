"use client";

import { clsx } from "clsx";
import { Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import { toast } from "sonner";
import { Brand } from "../kit/signs";
import { usePlan } from "../plan-store/use-plan";
import { GroundSwitch } from "./GroundSwitch";
import { LetIn } from "./LetIn";
import { useGoTo } from "./go-to";
import { SignOut } from "./SignOut";
import { useUi } from "./use-ui";
import { VIEWS, type ViewKey } from "./views";

const told = async (step: Promise<string | null>) => {
  const refusal = await step;
  if (refusal !== null) toast.error(refusal, { duration: 8000 });
};

export function TopBar({ view, fallbackName }: { view: ViewKey; fallbackName: string }) {
  const name = usePlan((state) => state.held?.index.plan.site.name) ?? fallbackName;
  const steps = usePlan((state) => state.steps);
  const undo = usePlan((state) => state.undo);
  const redo = usePlan((state) => state.redo);
  const person = usePlan((state) => state.person);
  const set = useUi((state) => state.set);
  const isUnfolded = useUi((state) => state.unfoldedOver === view);
  const goTo = useGoTo();
  const title = VIEWS.find((v) => v.key === view)?.title ?? "";
  return (
    <header
      className={clsx(
        "col-span-full flex flex-wrap items-stretch border-b border-ink bg-paper [&>*]:flex",
        "[&>*]:min-h-[43px] [&>*]:items-center",
      )}
    >
      <Link
        href="/"
        className="w-[200px] gap-[10px] border-r border-hair px-4 text-[16px] font-bold max-[600px]:w-[52px]"
        title="All sites"
        aria-label="Dianome: all sites"
      >
        <Brand />
        <span className="max-[600px]:hidden">Dianome</span>
      </Link>
      <p className="gap-2 px-4 whitespace-nowrap max-[600px]:w-0 max-[600px]:flex-1">
        <b className="truncate font-semibold">{name}</b>
        <span className="text-ink2 max-[600px]:hidden">/</span>
        <span className="max-[600px]:hidden">{title}</span>
      </p>
      <div className="min-w-40 flex-1 px-2 max-[600px]:min-w-0 max-[600px]:flex-none">
        <button
          type="button"
          className={clsx(
            "flex h-7 flex-1 items-center max-[600px]:h-11 gap-2 rounded border border-rule",
            "bg-panel px-2 text-13 text-ink2",
          )}
          onClick={() => set({ commandOpen: true })}
        >
          Find or do<kbd className="ml-auto max-[600px]:hidden">Ctrl K</kbd>
        </button>
      </div>
      <div className={`flex-wrap gap-[6px] pr-4 pl-[6px] ${isUnfolded ? "" : "max-[600px]:!hidden"}`}>
        <button type="button" className="button" onClick={() => goTo.view("probe")}>
          Probe <kbd>P</kbd>
        </button>
        <button
          type="button"
          className="button square"
          disabled={steps.undo === null}
          aria-label={steps.undo === null ? "Undo" : `Undo: ${steps.undo}`}
          title={steps.undo === null ? "Nothing to undo" : `Undo: ${steps.undo}`}
          onClick={() => void told(undo())}
        >
          <Undo2 size={15} />
        </button>
        <button
          type="button"
          className="button square"
          disabled={steps.redo === null}
          aria-label={steps.redo === null ? "Redo" : `Redo: ${steps.redo}`}
          title={steps.redo === null ? "Nothing to bring back" : `Redo: ${steps.redo}`}
          onClick={() => void told(redo())}
        >
          <Redo2 size={15} />
        </button>
        <b className="px-[6px] text-13 font-semibold whitespace-nowrap">{person}</b>
        <LetIn />
        <SignOut />
        <GroundSwitch />
      </div>
    </header>
  );
}
