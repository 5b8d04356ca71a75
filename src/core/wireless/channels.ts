import type { Band, Radio, RadioRules } from "../plan";

/** Where the numbers of bonded channels begin to be counted (IEEE 802.11 annex E). */
const BASES: Readonly<Record<Exclude<Band, "2.4">, readonly number[]>> = { "5": [149, 100, 36], "6": [1] };

/**
 * The 20 MHz channels that a radio occupies, ascending. In 2.4 GHz the one itself, and for 40 MHz the one
 * four above it or, at the end of the band, below. Null when no channel of that width holds this number.
 */
export function channelBlock(band: Band, channel: number, widthMhz: Radio["widthMhz"]): number[] | null {
  const count = widthMhz / 20;
  if (band === "2.4") {
    if (count > 2) return null;
    if (count === 1) return [channel];
    if (channel <= 7) return [channel, channel + 4];
    return [channel - 4, channel];
  }
  const base = BASES[band].find((base) => channel >= base);
  if (base === undefined || (channel - base) % 4 !== 0) return null;
  const start = base + Math.floor((channel - base) / 4 / count) * count * 4;
  return Array.from({ length: count }, (_, i) => start + i * 4);
}

/**
 * In 2.4 GHz channels less than five apart reach into one another (25 MHz from 1 to 6); elsewhere those with
 * a 20 MHz channel in common.
 */
export function channelsOverlap(band: Band, a: readonly number[], b: readonly number[]): boolean {
  return band === "2.4" ? a.some((x) => b.some((y) => Math.abs(x - y) < 5)) : a.some((x) => b.includes(x));
}

function indoorText(all: number, indoor: number): string {
  if (indoor === 0) return "";
  return indoor === all ? "all indoors only" : `${indoor} indoors only`;
}

/** "19 channels, 15 with radar, 8 indoors only": what a band's list has. */
export function channelsSummary(rules: RadioRules, band: Band): string {
  const own = rules.channels.filter((channel) => channel.band === band);
  const [dfs, indoor] = [own.filter((part) => part.dfs).length, own.filter((part) => part.indoor).length];
  if (own.length === 0) return "none listed: any number is taken";
  return [
    own.length === 1 ? "1 channel" : `${own.length} channels`,
    dfs === 0 ? "" : `${dfs} with radar`,
    indoorText(own.length, indoor),
  ]
    .filter((part) => part !== "")
    .join(", ");
}

/** A choice for a radio: its primary channel, all that it occupies, and whether it has to leave for radar. */
export interface Option {
  readonly channel: number;
  readonly block: readonly number[];
  readonly dfs: boolean;
}

/**
 * What the site's rules allow a radio of a band and width, each block once: those without radar first, then
 * by number.
 */
export function channelOptions(
  rules: RadioRules,
  band: Band,
  widthMhz: Radio["widthMhz"],
  useDfs: "with radar channels" | "without radar channels",
): Option[] {
  const allowed = new Map(
    rules.channels.filter((channel) => channel.band === band).map((channel) => [channel.number, channel]),
  );
  const options = new Map<string, Option>();
  const firsts =
    band === "2.4" && widthMhz === 20 && [1, 6, 11].every((free) => allowed.has(free))
      ? [1, 6, 11]
      : [...allowed.keys()];
  for (const channel of firsts) {
    const block = channelBlock(band, channel, widthMhz);
    if (block === null || !block.every((part) => allowed.has(part))) continue;
    const dfs = block.some((part) => allowed.get(part)?.dfs === true);
    if (dfs && useDfs === "without radar channels") continue;
    const key = block.join(" ");
    if (!options.has(key)) options.set(key, { channel: block[0] ?? channel, block, dfs });
  }
  return [...options.values()].sort((a, b) => Number(a.dfs) - Number(b.dfs) || a.channel - b.channel);
}
