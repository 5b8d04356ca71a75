import { v7 } from "uuid";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { Act, Debrief, Played } from "@/core/drills";
import type { Plan } from "@/core/plan";
import type { DrillAsked, Nameable, Opened } from "@/workers/drill-room";
import { actOf, formOf, keptDrill, type KeptDrill } from "./forms";
import { readKept, writeKept } from "./kept";
import { drillRoom, stopDrillRoom } from "./remote";
import { addTry } from "./tries";

/** What is played, on whose page, and what came of it. */
export interface DrillState {
  readonly site: string | null;
  readonly asked: DrillAsked | null;
  readonly opened: Opened | null;
  readonly acts: readonly Act[];
  readonly played: Played | null;
  readonly faults: readonly Nameable[];
  readonly debrief: Debrief | null;
  readonly isWorking: boolean;
  /** Why there is none, in a sentence. */
  readonly trouble: string | null;
  readonly id: string;
  readonly revision: number | null;
}

const IDLE: DrillState = {
  site: null,
  asked: null,
  opened: null,
  acts: [],
  played: null,
  faults: [],
  debrief: null,
  isWorking: false,
  trouble: null,
  id: "",
  revision: null,
};
const NO_FAULT =
  "On this site no fault of that level was found that somebody would notice and that could be told from " +
  "others; take another level, or place more devices.";
const NO_WORKER = "The drill could not be made in this browser; reload the page and try again.";
const CHANGED = "The site has changed since that drill was begun: it is given up. Begin another one.";

const store = createStore<DrillState>()(() => IDLE);
const isCurrent = (id: string): boolean => store.getState().id === id;

const keyOf = (site: string): string => `dianome:drill:${site}`;
const keepDrill = (site: string, kept: KeptDrill | null): void => writeKept(keyOf(site), kept);

function keep({ site, asked, acts, id, revision }: DrillState): void {
  if (site !== null && asked !== null)
    keepDrill(site, { version: 1, asked, acts: acts.map(formOf), id, revision });
}

/** What came of all acts; when it is over it is counted, and told how it went. */
async function replay(id: string, acts: readonly Act[]): Promise<void> {
  const room = drillRoom();
  const played = await room.play(acts);
  const faults = await room.faults(acts);
  if (!isCurrent(id) || played === null) return;
  store.setState({ acts, played, faults, isWorking: played.end !== "open" });
  keep(store.getState());
  if (played.end === "open") return;
  const { asked } = store.getState();
  if (asked !== null)
    void addTry({
      id,
      what: asked.what,
      number: asked.number,
      isSolved: played.end === "solved",
      score: played.used,
    });
  const debrief = await room.debrief(acts);
  if (isCurrent(id)) store.setState({ debrief, isWorking: false });
}

/** A failure of the worker is told; what was done is kept, so that a reload goes on. */
function told(work: Promise<void>, id: string): void {
  work.catch(() => {
    if (isCurrent(id)) store.setState({ isWorking: false, trouble: NO_WORKER });
  });
}

interface Begun {
  readonly asked: DrillAsked;
  readonly acts: readonly Act[];
  readonly id: string;
}

async function begin(site: string, plan: Plan, revision: number, { asked, acts, id }: Begun): Promise<void> {
  store.setState({
    ...IDLE,
    site,
    asked,
    id,
    isWorking: true,
    revision: asked.what === "site" ? revision : null,
  });
  const opened = await drillRoom().open(asked, asked.what === "site" ? plan : null);
  if (!isCurrent(id)) return;
  if (opened === null) {
    store.setState({ ...IDLE, site, trouble: NO_FAULT });
    return;
  }
  store.setState({ opened });
  await replay(id, acts);
}

/** Plants a fault and begins. */
export function startDrill(site: string, plan: Plan, revision: number, asked: DrillAsked): void {
  const id = v7();
  told(begin(site, plan, revision, { asked, acts: [], id }), id);
}

/** Goes on with what was being played before the page was loaded. */
export function resumeDrill(site: string, plan: Plan, revision: number): void {
  if (store.getState().site === site) return;
  stopDrillRoom();
  const kept = readKept(keyOf(site), keptDrill);
  if (kept === null) {
    store.setState({ ...IDLE, site });
    return;
  }
  if (kept.revision !== null && kept.revision !== revision) {
    keepDrill(site, null);
    store.setState({ ...IDLE, site, trouble: CHANGED });
    return;
  }
  const { asked, id } = kept;
  told(begin(site, plan, revision, { asked, acts: kept.acts.map(actOf), id }), id);
}

/** Does something, and sees what comes of it. */
export function act(next: Act): void {
  const { id, acts, played, isWorking } = store.getState();
  if (played?.end !== "open" || isWorking) return;
  store.setState({ isWorking: true });
  told(replay(id, [...acts, next]), id);
}

/** Back to the list; what was played is forgotten here. */
export function leaveDrill(): void {
  const { site } = store.getState();
  if (site !== null) keepDrill(site, null);
  stopDrillRoom();
  store.setState({ ...IDLE, site });
}

export const useDrill = (): DrillState => useStore(store);
