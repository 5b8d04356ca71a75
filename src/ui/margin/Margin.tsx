"use client";

import dynamic from "next/dynamic";
import { createElement, useDeferredValue } from "react";
import { OthersAtThis } from "../frame/Others";
import type { ViewKey } from "../frame/views";
import type { Selection } from "../frame/ui-state";
import { useUi } from "../frame/use-ui";
import { useIndex } from "../plan-store/use-plan";
import { DeviceMargin } from "./device/DeviceMargin";
import { FindingMargin } from "./findings/FindingMargin";
import { HostMargin } from "./register/HostMargin";
import { InterfaceMargin } from "./device/InterfaceMargin";
import { LinkMargin } from "./device/LinkMargin";
import { PortsMargin } from "./device/PortsMargin";
import { DrillMargin } from "./drills/DrillMargin";
import { FailureMargin } from "./simulation/FailureMargin";
import { StepMargin } from "./runbook/StepMargin";
import { WindowMargin } from "./runbook/WindowMargin";
import { ReachMargin } from "./simulation/ReachMargin";
import { ProbeMargin } from "./simulation/ProbeMargin";
import { SegmentMargin } from "./segments/SegmentMargin";
import { NumberingMargin } from "./segments/NumberingMargin";
import { SheetMargin } from "./SheetMargin";
import { ConventionsMargin } from "./survey/ConventionsMargin";
import { DraftMargin } from "./survey/DraftMargin";
import { GearMargin } from "./survey/GearMargin";
import { KindsMargin } from "./survey/KindsMargin";
import { LineMargin } from "./survey/LineMargin";
import { RemarksSection } from "./remarks/RemarksSection";
import { RoomMargin } from "./survey/RoomMargin";
import { SurveyMargin } from "./survey/SurveyMargin";
import { SsidMargin } from "./wireless/SsidMargin";
import { WirelessMargin } from "./wireless/WirelessMargin";
import { WishMargin } from "./gateway/WishMargin";
import { ConduitMargin } from "./walls/ConduitMargin";
import { EntryMargin } from "./guards/EntryMargin";
import { SignInMargin } from "./guards/SignInMargin";
import { AirGap } from "./guards/AirGap";
import { SwitchOn } from "./guards/SwitchOn";
import { TreesAhead } from "./guards/TreesAhead";
import { ServiceMargin } from "./walls/ServiceMargin";
import { ExceptionMargin } from "./walls/ExceptionMargin";
import { ForwardMargin } from "./walls/ForwardMargin";
import { RuleMargin } from "./walls/RuleMargin";
import { WallMargin } from "./walls/WallMargin";

/** Charts are heavy, so they come when they are asked for. */
const LeaseMargin = dynamic(() => import("./segments/LeaseMargin").then((m) => m.LeaseMargin), {
  loading: () => (
    <p role="status" className="p-4 text-13 text-ink2">
      Opening …
    </p>
  ),
});

/** Beside the sheet: what is selected, its findings with their repairs, its history. */
export function Margin({ view }: { view: ViewKey }) {
  const folded = useUi((state) => state.folded);
  // The table shows what was written and where one stands now before the margin of that is drawn.
  const selection = useDeferredValue(useUi((state) => state.selection));
  const set = useUi((state) => state.set);
  if (folded) {
    return (
      <aside aria-label="Margin" className="border-l border-hair">
        <button
          type="button"
          className="h-11 w-full"
          aria-label="Unfold the margin"
          title="Unfold the margin"
          onClick={() => set({ folded: false })}
        >
          ‹
        </button>
      </aside>
    );
  }
  return (
    <aside
      aria-label="Margin"
      tabIndex={-1}
      className="relative flex flex-col overflow-y-auto border-l border-hair"
    >
      <OthersAtThis selection={selection} />
      <Content view={view} selection={selection} />
      <RemarksSection />
    </aside>
  );
}

/**
 * What lets something pass: a rule that stands on a device, an exception, a forward, a wish from outside, a
 * sign-in.
 */
function PassMargin({
  of,
}: {
  of: Extract<
    Selection,
    { what: "rule" | "exception" | "service" | "conduit" | "forward" | "wish" | "signIn" | "entry" }
  >;
}) {
  if (of.what === "entry") return <EntryMargin {...of} />;
  if (of.what === "signIn") return <SignInMargin key={of.id} id={of.id} />;
  if (of.what === "service") return <ServiceMargin key={of.id} id={of.id} />;
  if (of.what === "conduit") return <ConduitMargin key={of.id} id={of.id} />;
  if (of.what === "exception") return <ExceptionMargin key={of.id} id={of.id} />;
  if (of.what === "wish") return <WishMargin key={of.id} id={of.id} way={of.way} />;
  return of.what === "rule" ? (
    <RuleMargin key={of.id} id={of.id} />
  ) : (
    <ForwardMargin key={of.id} id={of.id} />
  );
}

/** One line, as long as it is there, or all of them. */
function LinesMargin({ id }: { id: string | null }) {
  const { plan } = useIndex();
  return <LineMargin key={id} id={id !== null && plan.line.has(id) ? id : null} />;
}

/** What is of the whole site and not of one thing in it. */
const OF_THE_SITE = {
  conventions: ConventionsMargin,
  kinds: KindsMargin,
  draft: DraftMargin,
  numbering: NumberingMargin,
} as const;

/** What is beside a view whatever is selected. */
const OF_THE_VIEW = { failures: FailureMargin, drills: DrillMargin } as const;

// eslint-disable-next-line complexity -- one margin for each kind of selection
function Content({ view, selection }: { view: ViewKey; selection: Selection | null }) {
  const probeWay = useUi((state) => state.probeWay);
  const { plan } = useIndex();
  if (view === "probe" && probeWay !== "reach") return <ProbeMargin />;
  if (view === "probe") return <ReachMargin at={selection?.what === "reach" ? selection : null} />;
  if (view === "failures" || view === "drills") return createElement(OF_THE_VIEW[view]);
  if (view === "runbook") return <RunbookMargin selection={selection} />;
  switch (selection?.what) {
    case "room":
      return plan.room.has(selection.id) ? (
        <RoomMargin key={selection.id} id={selection.id} />
      ) : (
        <SurveyMargin />
      );
    case "line":
    case "lines":
      return <LinesMargin id={selection.what === "line" ? selection.id : null} />;
    case "gear":
      return <GearMargin key={selection.id} id={selection.id} />;
    case "conventions":
    case "kinds":
    case "draft":
    case "numbering":
      return createElement(OF_THE_SITE[selection.what]);
    case "leases":
      return plan.segment.has(selection.id) ? (
        <LeaseMargin key={selection.id} id={selection.id} />
      ) : (
        <SheetMargin view={view} />
      );
    case "segment":
      return plan.segment.has(selection.id) ? (
        <SegmentMargin key={selection.id} id={selection.id} />
      ) : (
        <SheetMargin view={view} />
      );
    case "host":
      return plan.host.has(selection.id) ? (
        <HostMargin key={selection.id} id={selection.id} />
      ) : (
        <SheetMargin view={view} />
      );
    case "interface":
      return plan.interface.has(selection.id) ? (
        <InterfaceMargin key={selection.id} id={selection.id} />
      ) : (
        <SheetMargin view={view} />
      );
    case "device":
      return plan.device.has(selection.id) ? (
        <DeviceMargin key={selection.id} id={selection.id} />
      ) : (
        <SheetMargin view={view} />
      );
    case "ssid":
      return plan.ssid.has(selection.id) ? (
        <SsidMargin key={selection.id} id={selection.id} />
      ) : (
        <WirelessMargin />
      );
    case "link":
      return plan.link.has(selection.id) ? (
        <LinkMargin key={selection.id} id={selection.id} />
      ) : (
        <SheetMargin view={view} />
      );
    case "ports":
      return selection.ids.some((id) => plan.port.has(id)) ? (
        <PortsMargin device={selection.device} ids={selection.ids} />
      ) : (
        <SheetMargin view={view} />
      );
    case "signIn":
    case "entry":
    case "rule":
    case "exception":
    case "service":
    case "conduit":
    case "forward":
    case "wish":
      return <PassMargin of={selection} />;
    case "wall":
      return <WallMargin key={JSON.stringify(selection)} {...selection} />;
    case "finding":
      return <FindingMargin findingKey={selection.key} view={view} />;
    default:
      return <NothingMargin view={view} />;
  }
}

/** On the runbook a window or a step is looked at. */
const RunbookMargin = ({ selection }: { selection: Selection | null }) =>
  selection?.what === "window" ? <WindowMargin key={selection.id} id={selection.id} /> : <StepMargin />;

/** A sheet's margin with nothing selected. */
function NothingMargin({ view }: { view: ViewKey }) {
  if (view === "survey") return <SurveyMargin />;
  if (view === "guards")
    return (
      <SheetMargin view={view}>
        <SwitchOn />
        <TreesAhead />
        <AirGap />
      </SheetMargin>
    );
  return view === "wireless" ? <WirelessMargin /> : <SheetMargin view={view} />;
}
