"use client";

import { usePathname } from "next/navigation";
import type { ReactNode } from "react";
import { Toaster } from "sonner";
import type { Role } from "@/http/contracts/answers";
import { Margin } from "../margin/Margin";
import { PlanProvider, usePlan } from "../plan-store/use-plan";
import { ClashDialog } from "./ClashDialog";
import { CommandField } from "./CommandField";
import { DroppedDialog } from "./DroppedDialog";
import { useLive, usePresence } from "../live/use-live";
import { useTellSaved } from "../live/use-tell-saved";
import { KeysHelp } from "./KeysHelp";
import { OthersMarks, thingsOf } from "./Others";
import { Trail } from "./Trail";
import { TitleBlock } from "./TitleBlock";
import { TopBar } from "./TopBar";
import { UndoImportDialog } from "./UndoImportDialog";
import { useKeys } from "./use-keys";
import { useLabelAddress } from "./use-label-address";
import { useKeepOffline } from "./use-offline";
import { UiProvider, useUi } from "./use-ui";
import { viewIn, type ViewKey } from "./views";
import { WorkOrder } from "./WorkOrder";

/** Everything around a view: the site's plan is loaded once and stays while one goes from sheet to sheet. */
export function Workspace({
  site,
  name,
  person,
  role,
  children,
}: {
  site: string;
  name: string;
  person: string;
  role: Role;
  children: ReactNode;
}) {
  return (
    <PlanProvider site={site} person={person} role={role}>
      <UiProvider>
        <Frame name={name}>{children}</Frame>
      </UiProvider>
    </PlanProvider>
  );
}

function Frame({ name, children }: { name: string; children: ReactNode }) {
  const view = viewIn(usePathname());
  const phase = usePlan((state) => state.phase);
  const folded = useUi((state) => state.folded);
  useKeys();
  useLabelAddress();
  const site = usePlan((state) => state.site);
  useLive(site);
  useTellSaved(site);
  return (
    <div className={folded ? "frame folded" : "frame"}>
      <button type="button" className="skip" onClick={toSheet}>
        Skip to the sheet
      </button>
      <TopBar view={view} fallbackName={name} />
      <WorkOrder view={view} />
      {phase === "ready" ? (
        <Trail sheet={children} behind={<Margin view={view} />} />
      ) : (
        <>
          <NotReady />
          <aside className="border-l border-hair" aria-label="Margin" />
        </>
      )}
      <TitleBlock view={view} fallbackName={name} />
      {phase === "ready" ? (
        <>
          <CommandField />
          <ClashDialog />
          <DroppedDialog />
          <UndoImportDialog />
        </>
      ) : null}
      <InStep site={site} view={view} />
      <OthersMarks />
      <KeysHelp />
      <Toaster
        position="bottom-center"
        offset={40}
        toastOptions={{
          style: {
            background: "var(--ink)",
            color: "var(--paper)",
            border: "0",
            borderRadius: 3,
            fontSize: 13,
            fontFamily: "inherit",
            padding: 10,
          },
        }}
      />
    </div>
  );
}

/** Tells others what is looked at here, and keeps the site for offline; apart, since nothing is drawn by it. */
function InStep({ site, view }: { site: string; view: ViewKey }) {
  usePresence(site, view, thingsOf(useUi((state) => state.selection)));
  useKeepOffline(
    site,
    usePlan((state) => state.held?.revision),
  );
  return null;
}

/** Past the work order, to the first thing on the sheet that can be reached. */
function toSheet(): void {
  const sheet = document.querySelector("main");
  sheet?.setAttribute("tabindex", "-1");
  sheet?.focus();
}

function NotReady() {
  const failure = usePlan((state) => state.failure);
  const load = usePlan((state) => state.load);
  return (
    <main className="sheet items-start gap-3 p-6">
      {failure === null ? (
        <p role="status" className="text-15 text-ink2">
          Loading the plan …
        </p>
      ) : (
        <>
          <h1 className="text-18">The plan could not be loaded</h1>
          <p role="alert" className="text-15">
            {failure}
          </p>
          <button type="button" className="button go" onClick={() => void load()}>
            Try again
          </button>
        </>
      )}
    </main>
  );
}
