// What goes on at a site, for everybody who has it open: its revision, the end of its record, and who is where.
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

export interface LiveStore {
  /** The state of each site that is there. */
  readonly states: (sites: readonly string[]) => Promise<ReadonlyMap<string, LiveState>>;
  readonly putPresence: (
    site: string,
    person: string,
    at: { readonly tab: string; readonly sheet: string; readonly things: readonly string[] },
  ) => Promise<void>;
  readonly dropPresence: (site: string, person: string, tab: string) => Promise<void>;
}

type Listener = (state: LiveState) => void;
export interface Live {
  /** Tells the state now and whenever it changes, until the answered function is called. */
  readonly watch: (site: string, listener: Listener) => () => void;
}

interface Watched {
  readonly listeners: Set<Listener>;
  /** What was told last, as text: anything else is news. */
  told: string | null;
}

/** As long between two looks at the database: news is everywhere within a second. */
const EVERY_MS = 400;
/** And after one that failed. */
const AFTER_FAILURE_MS = 2000;

/** Looks at all sites that somebody here watches, in one go; at nothing while nobody does. */
export function makeLive(states: LiveStore["states"], wait: (ms: number) => Promise<void>): Live {
  const watched = new Map<string, Watched>();
  let running = false;

  const tell = (site: string, state: LiveState): void => {
    const of = watched.get(site);
    const text = JSON.stringify(state);
    if (of === undefined || of.told === text) return;
    of.told = text;
    for (const listener of of.listeners) listener(state);
  };
  const look = async (): Promise<number> => {
    try {
      for (const [site, state] of await states([...watched.keys()])) tell(site, state);
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
      if (of.told !== null) listener(JSON.parse(of.told) as LiveState);
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
