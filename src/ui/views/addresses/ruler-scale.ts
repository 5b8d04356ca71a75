import type { Ruler, Stretch } from "@/core/sheets";

/** Where offsets of a subnet lie on the page, in px: `from` at `x`, each address `px` wide. */
export interface Scale {
  readonly x: number;
  readonly px: number;
  readonly from: number;
  readonly to: number;
}

export const placeOf = (scale: Scale, offset: number): number => scale.x + (offset - scale.from) * scale.px;
/** The part of a stretch that a scale shows; null when none of it. */
export function shownPart(scale: Scale, { first, last }: Stretch): { x: number; width: number } | null {
  const [a, b] = [Math.max(first, scale.from), Math.min(last, scale.to)];
  return a > b ? null : { x: placeOf(scale, a), width: (b - a + 1) * scale.px };
}

const NAMES_PX = 144;
const EDGE_PX = 16;
const LEAST_GLASS_PX = 180;
const MOST_PX = 40;
/** A glass that enlarges by less than this shows nothing new. */
const WORTH_WHILE = 1.5;

export interface Layout {
  readonly whole: Scale;
  readonly glass: Scale | null;
}

/** One scale for all rulers; a subnet that leaves room beside it gets a glass that enlarges its crowded end. */
export function layoutOf(ruler: Ruler, width: number, largest: number): Layout {
  const px = (width - NAMES_PX - EDGE_PX) / largest;
  const whole: Scale = { x: NAMES_PX, px, from: 0, to: ruler.size - 1 };
  const glassX = Math.max(NAMES_PX + ruler.size * px + 36, NAMES_PX + 174);
  const room = width - EDGE_PX - glassX;
  const part = room / ruler.crowded.count > px * WORTH_WHILE ? ruler.crowded : ruler.fixedEnd;
  if (room < LEAST_GLASS_PX || room / part.count <= px * WORTH_WHILE) return { whole, glass: null };
  return {
    whole,
    glass: { x: glassX, px: Math.min(room / part.count, MOST_PX), from: part.first, to: part.last },
  };
}

/** Every how many addresses a number stands, so that numbers keep 26 px apart. */
export const numberStep = (px: number): number =>
  [1, 2, 5, 10, 16, 32, 64, 128, 256, 512, 1024, 2048, 4096, 8192, 16_384, 32_768, 65_536].find(
    (step) => step * px >= 26,
  ) ?? 65_536;

/** What stands below an offset: the last octet where the subnet lies in one /24, else the last two. */
export function offsetLabel(ruler: Ruler, offset: number): string {
  const address = ruler.prefix.network + offset;
  const last = address % 256;
  return ruler.size <= 256 ? String(last) : `${Math.floor(address / 256) % 256}.${last}`;
}
