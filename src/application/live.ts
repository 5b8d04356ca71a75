import type { LogEntry } from "./stores";

// What goes on at a site, for everybody who has it open: what changed, the end of its record, and who is where.
// Every instance asks the database by itself, so that it does not matter on which one somebody works.

/** One tab in which somebody has the site open. */
export interface Present {
  readonly tab: string;
  readonly name: string;
  readonly sheet: string;
  /** Ids of what is selected. */
  readonly things: readonly string[];
}
export interface LiveState {
  readonly revision: number;
  /** The last place in the record. */
  readonly record: number;
  readonly present: readonly Present[];
}

/** The state as it is told, with what changed since it was told before. */
export interface Told extends LiveState {
  /** What came after that revision, oldest first; null where nobody was told before, or where it is much. */
  readonly news: { readonly after: number; readonly entries: readonly LogEntry[] } | null;
}

export interface LiveStore {
  /** The state of each site that is there. */
  readonly states: (sites: readonly string[]) => Promise<ReadonlyMap<string, LiveState>>;
  /** What came after a revision up to another one, oldest first; null where it is not there, or is much. */
  readonly cameBetween: (site: string, after: number, until: number) => Promise<readonly LogEntry[] | null>;
  readonly putPresence: (
    site: string,
    person: string,
    at: { readonly tab: string; readonly sheet: string; readonly things: readonly string[] },
  ) => Promise<void>;
  readonly dropPresence: (site: string, person: string, tab: string) => Promise<void>;
}

type Listener = (told: Told) => void;
export interface Live {
  /** Tells the state now and whenever it changes, until the answered function is called. */
  readonly watch: (site: string, listener: Listener) => () => void;
}

interface Watched {
  readonly listeners: Set<Listener>;
  /** What was told last. */
  told: LiveState | null;
}

/** As long between two looks at the database: news is everywhere within a second. */
const EVERY_MS = 400;
/** And after one that failed. */
const AFTER_FAILURE_MS = 2000;

/** Looks at all sites that somebody here watches, in one go; at nothing while nobody does. */
export function makeLive(
  { states, cameBetween }: Pick<LiveStore, "states" | "cameBetween">,
  wait: (ms: number) => Promise<void>,
): Live {
  const watched = new Map<string, Watched>();
  let running = false;

  /** What is new since `before`, read once for everybody who listens. */
  const newsSince = async (site: string, before: LiveState | null, now: LiveState): Promise<Told["news"]> => {
    if (before === null || now.revision < before.revision) return null;
    const after = before.revision;
    const entries = now.revision === after ? [] : await cameBetween(site, after, now.revision);
    return entries === null ? null : { after, entries };
  };
  const tell = async (site: string, state: LiveState): Promise<void> => {
    const of = watched.get(site);
    if (of === undefined || JSON.stringify(of.told) === JSON.stringify(state)) return;
    const told = { ...state, news: await newsSince(site, of.told, state) };
    of.told = state;
    for (const listener of of.listeners) listener(told);
  };
  const look = async (): Promise<number> => {
    try {
      for (const [site, state] of await states([...watched.keys()])) await tell(site, state);
      return EVERY_MS;
    } catch {
      // The database is away: whoever listens goes on listening, and is told when it is back.
      return AFTER_FAILURE_MS;
    }
  };
  const run = async (): Promise<void> => {
    while (watched.size > 0) await wait(await look());
    running = false;
  };

  return {
    watch: (site, listener) => {
      const of = watched.get(site) ?? { listeners: new Set<Listener>(), told: null };
      watched.set(site, of);
      of.listeners.add(listener);
      // Whoever comes is told what the others know already.
      if (of.told !== null) listener({ ...of.told, news: null });
      if (!running) {
        running = true;
        void run();
      }
      return () => {
        of.listeners.delete(listener);
        if (of.listeners.size === 0 && watched.get(site) === of) watched.delete(site);
      };
    },
  };
}
