// How long somebody waits after tries to sign in that failed. Each wait is twice as long as the one before, and
// none is so long that somebody is shut out.

interface Patience {
  /** As many tries cost nothing. */
  readonly free: number;
  readonly mostSeconds: number;
}
const PATIENCE = {
  account: { free: 5, mostSeconds: 300 },
  browser: { free: 10, mostSeconds: 60 },
  address: { free: 30, mostSeconds: 300 },
} as const satisfies Record<string, Patience>;

export type TryKind = keyof typeof PATIENCE;

/** Seconds until the next try after that many failed ones. */
export function waitAfter(kind: TryKind, failed: number): number {
  const { free, mostSeconds } = PATIENCE[kind];
  return failed < free ? 0 : Math.min(2 ** Math.min(failed - free, 20), mostSeconds);
}
