import { leafletFor, type PlanIndex } from "../plan";
import type { Page } from "./operations";
import type { Step, StepKind } from "./step";

/** Minutes that a page is taken to need, with looking whether it took: for planning, not measured. */
const PAGE_MINUTES: Readonly<Record<Page, number>> = {
  power: 3,
  software: 15,
  ownServer: 2,
  vlans: 2,
  tree: 2,
  ports: 2,
  address: 2,
  line: 5,
  routes: 2,
  baseline: 5,
  scope: 2,
  filter: 5,
  wireless: 3,
  trunk: 2,
  guards: 3,
};
const KIND_MINUTES: Readonly<Record<Exclude<StepKind, "do">, number>> = {
  begin: 2,
  move: 3,
  copy: 2,
  credentials: 3,
  save: 1,
  permit: 0,
  end: 1,
};

/** What is asked of a step to tell how long it takes. */
type Timed = Pick<Step, "kind" | "device" | "operation">;

/** Whole minutes that a step is taken to need; what waits for a device to start takes that long, too. */
export function minutesOf(index: PlanIndex, { kind, device, operation }: Timed): number {
  if (kind !== "do" || operation === null) return kind === "do" ? 0 : KIND_MINUTES[kind];
  const { page } = operation;
  const own = index.plan.device.get(device ?? "");
  const leaflet = own === undefined ? undefined : leafletFor(index, own);
  const starts =
    page === "power" || page === "software" || (page === "address" && leaflet?.restarts === true);
  return PAGE_MINUTES[page] + (starts ? Math.ceil((leaflet?.startSeconds ?? 60) / 60) : 0);
}

/** Minutes that taking a step back needs; null for what can't be taken back by entering what was before. */
export function backMinutesOf({ kind, operation, minutes }: Step): number | null {
  if (kind !== "do") return 0;
  return operation?.page === "software" ? null : minutes;
}

/** "45 min", "2 h", "6 h 8 min": minutes as they are said. */
export function minutesText(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return `${minutes} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}
