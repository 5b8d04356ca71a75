import { createStore, type StoreApi } from "zustand/vanilla";
import type { ProbeAs, ProbeGoal, ProbePlace, ProbeQuestion, WallEnd } from "@/core/plan";
import type { SegmentColumn, Way } from "@/core/planners";
import type { Situation } from "@/core/guards";

/** What is selected; the margin shows it. */
export type Selection =
  | { readonly what: "segment"; readonly id: string; readonly column?: SegmentColumn }
  | { readonly what: "room"; readonly id: string }
  | { readonly what: "line"; readonly id: string }
  | { readonly what: "lines" }
  /** Gear that was found; null for the list with nothing chosen in it. */
  | { readonly what: "gear"; readonly id: string | null }
  | { readonly what: "conventions" }
  | { readonly what: "kinds" }
  | { readonly what: "draft" }
  | { readonly what: "numbering" }
  | { readonly what: "leases"; readonly id: string }
  | { readonly what: "host"; readonly id: string }
  | { readonly what: "interface"; readonly id: string }
  | { readonly what: "device"; readonly id: string }
  | { readonly what: "ssid"; readonly id: string }
  | { readonly what: "link"; readonly id: string }
  | { readonly what: "ports"; readonly device: string; readonly ids: readonly string[] }
  | { readonly what: "wall"; readonly from: WallEnd; readonly to: WallEnd }
  | { readonly what: "rule"; readonly id: string }
  | { readonly what: "forward"; readonly id: string }
  | { readonly what: "exception"; readonly id: string }
  | { readonly what: "service"; readonly id: string }
  | { readonly what: "conduit"; readonly id: string }
  | { readonly what: "signIn"; readonly id: string }
  | { readonly what: "window"; readonly id: string }
  /** One who is planned at a port with sign-in, in one situation; nobody: something that nobody knows. */
  | {
      readonly what: "entry";
      readonly port: string;
      readonly host: string | null;
      readonly situation: Situation;
    }
  /** A wish from outside, with one way in; null for all of them. */
  | { readonly what: "wish"; readonly id: string; readonly way: Way | null }
  | { readonly what: "finding"; readonly key: string }
  | { readonly what: "step"; readonly number: number }
  /** A pair of the reach matrix, by row and column. */
  | { readonly what: "reach"; readonly row: number; readonly column: number }
  | { readonly what: "failure"; readonly key: string };

/** The device that is selected itself or by its ports; null when something else is. */
export function deviceOfSelection(selection: Selection | null): string | null {
  if (selection?.what === "device") return selection.id;
  return selection?.what === "ports" ? selection.device : null;
}

/** What the probe is asked; nothing is asked as long as nothing is plugged in. */
export interface ProbeAsked {
  readonly from: ProbePlace | null;
  readonly as: ProbeAs;
  readonly family: 4 | 6;
  readonly goal: ProbeGoal;
  /** The minute of the week at which it is asked; null outside all hours that exceptions are limited to. */
  readonly minute?: number | null;
}

/** The ways to ask: one journey, the probes that are kept, everybody against everybody. */
export type ProbeWay = "journey" | "kept" | "reach";

/** The ways to see the gear. */
export type HardwareWay = "drawing" | "cabinets" | "cables" | "baseline" | "sheet" | "models";

/** The ways to look at the runbook: its order, the visit that goes on, one's own tries. */
export type RunbookWay = "order" | "windows" | "visit" | "rehearse" | "standIns" | "differences";

/** What is looked at on Tests. */
export type TestsTab = "sheet" | "captures" | "wrong" | "acceptance";

export interface UiState {
  readonly selection: Selection | null;
  readonly folded: boolean;
  readonly singleKeys: boolean;
  readonly probe: ProbeAsked;
  readonly probed: boolean;
  readonly probeWay: ProbeWay;
  /** A probe that the one on screen is laid beside; null without one. */
  readonly compared: ProbeQuestion | null;
  readonly hardware: HardwareWay;
  /** Null until somebody has chosen: then a visit that goes on comes first. */
  readonly runbookWay: RunbookWay | null;
  readonly testsTab: TestsTab;
  /** What does otherwise on site than its probe says, to be written down; null for nothing. */
  readonly complaint: Pick<ProbeQuestion, "from" | "goal" | "family"> | null;
  /** On narrow screens, the view over which the other views are unfolded; null for none. */
  readonly unfoldedOver: string | null;
  readonly commandOpen: boolean;
  readonly helpOpen: boolean;
  readonly set: (part: Partial<Omit<UiState, "set">>) => void;
  readonly select: (selection: Selection | null) => void;
}

export type UiStoreApi = StoreApi<UiState>;

export const createUiStore = (): UiStoreApi =>
  createStore<UiState>()((set) => ({
    selection: null,
    folded: false,
    singleKeys: true,
    probe: { from: null, as: { as: "client" }, family: 4, goal: { to: "address" } },
    probed: false,
    probeWay: "journey",
    compared: null,
    hardware: "drawing",
    runbookWay: null,
    testsTab: "sheet",
    complaint: null,
    unfoldedOver: null,
    commandOpen: false,
    helpOpen: false,
    set: (part) => set(part),
    select: (selection) => set({ selection }),
  }));
