import type { Family } from "@/core/checks";

/**
 * The views there are, in the order of the job; a number stays with its view whether or not its neighbours
 * exist yet.
 */
export interface View {
  readonly key: string;
  readonly title: string;
  readonly number: string | null;
  readonly group: "Plan" | "Protect" | "Prove" | "Build" | null;
  readonly family: Family | null;
}

export const VIEWS = [
  { key: "survey", title: "Survey", number: "01", group: "Plan", family: "survey" },
  { key: "segments", title: "Segments", number: "02", group: "Plan", family: "segments" },
  { key: "addresses", title: "Addresses", number: "03", group: "Plan", family: "addresses" },
  { key: "hardware", title: "Hardware", number: "04", group: "Plan", family: "hardware" },
  { key: "ports", title: "Ports", number: "05", group: "Plan", family: "ports" },
  { key: "wireless", title: "Wireless", number: "06", group: "Plan", family: "wireless" },
  { key: "gateway", title: "Gateway", number: "07", group: "Protect", family: "gateway" },
  { key: "walls", title: "Walls", number: "08", group: "Protect", family: "walls" },
  { key: "guards", title: "Switch guards", number: "09", group: "Protect", family: "guards" },
  { key: "findings", title: "Findings", number: "10", group: "Prove", family: null },
  { key: "probe", title: "Probe", number: "11", group: "Prove", family: null },
  { key: "failures", title: "Failures", number: "12", group: "Prove", family: null },
  { key: "runbook", title: "Runbook", number: "13", group: "Build", family: null },
  { key: "tests", title: "Tests", number: "14", group: "Build", family: null },
  { key: "handover", title: "Hand-over", number: "15", group: "Build", family: null },
  { key: "history", title: "History", number: null, group: null, family: null },
  { key: "drills", title: "Drills", number: null, group: null, family: null },
] as const satisfies readonly View[];

export type ViewKey = (typeof VIEWS)[number]["key"];
export const viewAddress = (site: string, view: ViewKey): string => `/sites/${site}/${view}`;
export const isView = (text: string): text is ViewKey => VIEWS.some((view) => view.key === text);
/** The view of an address within a site. */
export function viewIn(pathname: string): ViewKey {
  const key = pathname.split("/")[3] ?? "";
  // Somebody's bookmark of before: what leaves the plan is part of its hand-over.
  if (key === "export") return "handover";
  return isView(key) ? key : "segments";
}
/**
 * Goes to a view within the page: the plan is here already, and a server that is away must not take the sheet
 * along.
 */
export const showView = (site: string, view: ViewKey): void =>
  window.history.pushState(null, "", viewAddress(site, view));
