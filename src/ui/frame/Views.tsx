"use client";

import dynamic from "next/dynamic";
import { usePathname } from "next/navigation";
import { useEffect, type ComponentType } from "react";
import { viewIn, type ViewKey } from "./views";

const LOADERS = {
  survey: () => import("../views/survey/SurveyView").then((m) => m.SurveyView),
  segments: () => import("../views/segments/SegmentsView").then((m) => m.SegmentsView),
  addresses: () => import("../views/addresses/AddressesView").then((m) => m.AddressesView),
  hardware: () => import("../views/hardware/HardwareView").then((m) => m.HardwareView),
  ports: () => import("../views/ports/PortsView").then((m) => m.PortsView),
  wireless: () => import("../views/wireless/WirelessView").then((m) => m.WirelessView),
  gateway: () => import("../views/gateway/GatewayView").then((m) => m.GatewayView),
  walls: () => import("../views/walls/WallsView").then((m) => m.WallsView),
  guards: () => import("../views/guards/GuardsView").then((m) => m.GuardsView),
  failures: () => import("../views/failures/FailuresView").then((m) => m.FailuresView),
  findings: () => import("../views/findings/FindingsView").then((m) => m.FindingsView),
  probe: () => import("../views/probe/ProbeView").then((m) => m.ProbeView),
  runbook: () => import("../views/runbook/RunbookView").then((m) => m.RunbookView),
  tests: () => import("../views/tests/TestsView").then((m) => m.TestsView),
  handover: () => import("../views/handover/HandOverView").then((m) => m.HandOverView),
  drills: () => import("../views/drills/DrillsView").then((m) => m.DrillsView),
  history: () => import("../views/history/HistoryView").then((m) => m.HistoryView),
} as const satisfies Record<ViewKey, () => Promise<ComponentType>>;

const Waiting = () => (
  <main className="sheet">
    <p role="status" className="p-4 text-ink2">
      Opening the sheet …
    </p>
  </main>
);
const COMPONENTS = Object.fromEntries(
  Object.entries(LOADERS).map(([key, load]) => [key, dynamic(load, { loading: Waiting })]),
) as Record<ViewKey, ComponentType>;

/**
 * The view that the address names. All of them are fetched once the first is there, so that they open without
 * a server, too.
 */
export function Views() {
  const View = COMPONENTS[viewIn(usePathname())];
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const load of Object.values(LOADERS)) void load();
    }, 1000);
    return () => clearTimeout(timer);
  }, []);
  return <View />;
}
