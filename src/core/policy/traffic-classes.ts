import type { TrafficClass } from "../plan";

/** What a packet bears: the code point in its header (RFC 2474), the priority in its tag (IEEE 802.1Q). */
export interface Marks {
  readonly dscp: number;
  readonly pcp: number;
}

/**
 * The marks of each class: code points by RFC 4594 section 3, priorities by IEEE 802.1Q Annex I (5 is voice, 4
 * is video, 1 is background).
 */
export const CLASS_FACTS: Readonly<
  Record<TrafficClass, Marks & { readonly words: string; readonly point: string }>
> = {
  bestEffort: { dscp: 0, pcp: 0, words: "like any other", point: "DF" },
  bulk: { dscp: 10, pcp: 1, words: "in bulk, when there is room", point: "AF11" },
  signalling: { dscp: 40, pcp: 3, words: "signalling of calls", point: "CS5" },
  video: { dscp: 34, pcp: 4, words: "video", point: "AF41" },
  voice: { dscp: 46, pcp: 5, words: "voice", point: "EF" },
};

/** "voice, EF 46, priority 5"; of what is like any other only that. */
export function classText(name: TrafficClass): string {
  const { words, point, dscp, pcp } = CLASS_FACTS[name];
  return dscp === 0 ? words : `${words}, ${point} ${dscp}, priority ${pcp}`;
}
