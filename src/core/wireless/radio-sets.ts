import type { Band, RadioRules } from "../plan";

type Channel = RadioRules["channels"][number];
// eslint-disable-next-line max-params -- a row of a region's table, read in columns
const row = (band: Band, from: number, to: number, step: number, dfs = false, indoor = false): Channel[] =>
  Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => ({
    band,
    number: from + i * step,
    dfs,
    indoor,
  }));

/**
 * Starting points for a site's own list of channels, by the lower channel rules that hold in large parts of
 * each region. Every country has its own; the site's list can be edited, and what holds is what the regulator
 * says.
 */
export const RADIO_SETS = {
  europe: {
    region: "Europe",
    channels: [
      ...row("2.4", 1, 13, 1),
      ...row("5", 36, 48, 4, false, true),
      ...row("5", 52, 64, 4, true, true),
      ...row("5", 100, 140, 4, true),
      ...row("6", 1, 93, 4, false, true),
    ],
  },
  americas: {
    region: "Americas",
    channels: [
      ...row("2.4", 1, 11, 1),
      ...row("5", 36, 48, 4),
      ...row("5", 52, 64, 4, true),
      ...row("5", 100, 144, 4, true),
      ...row("5", 149, 165, 4),
      ...row("6", 1, 233, 4, false, true),
    ],
  },
  japan: {
    region: "Japan",
    channels: [
      ...row("2.4", 1, 13, 1),
      ...row("5", 36, 48, 4, false, true),
      ...row("5", 52, 64, 4, true, true),
      ...row("5", 100, 144, 4, true),
      ...row("6", 1, 93, 4, false, true),
    ],
  },
} as const satisfies Record<string, RadioRules>;
export type RadioSet = keyof typeof RADIO_SETS;
export const RADIO_SET_NAMES = Object.keys(RADIO_SETS) as RadioSet[];
