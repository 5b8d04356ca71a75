/** A tape's colour on paper, and that of what stands on it. */
export interface Ink {
  readonly base: string;
  readonly on: string;
}
/** The inks of tapes by their names. */
export type Inks = Readonly<Record<string, Ink>>;

export const INK = "#16212b";
export const QUIET_INK = "#52606b";
export const HAIR = "#c9c3b4";
export const NO_INK: Ink = { base: "#ffffff", on: INK };
