import type { Expected } from "../commissioning";
import type { HeardFile } from "../heard";
import { nameOf, type PlanIndex, type ProbeQuestion } from "../plan";
import type { Tap } from "./tap";
import { segmentAt, type WireLine } from "./wire";

/** What was heard of one subject, beside what is planned. */
export interface LaidLine {
  readonly about: string;
  /** Empty where the plan says nothing of it. */
  readonly planned: string;
  readonly heard: string;
  readonly verdict: "right" | "otherwise" | "note";
  /** What is otherwise or what it means, as a sentence; empty where nothing has to be said. */
  readonly says: string;
  /** The same as faults are laid beside it; null where no fault tells. */
  readonly line: WireLine | null;
  /** What a client was given, as the answer to a question; null for other lines. */
  readonly given: { readonly question: ProbeQuestion; readonly text: string } | null;
}

/** A client's question, and what it has to be given. */
export interface Asked {
  /** Null where it is another's in the same segment: what the client is given is no answer to that. */
  readonly question: ProbeQuestion | null;
  readonly expected: Expected;
}

/** Somebody listens: where, and what was heard. */
export interface Listening {
  readonly index: PlanIndex;
  /** The port's id. */
  readonly port: string;
  readonly tap: Tap;
  readonly heard: HeardFile;
  /** What the plan says of the port. */
  readonly planned: readonly WireLine[];
  /** Who has which MAC address by the plan. */
  readonly names: ReadonlyMap<string, string>;
  /** What clients have to be given, as far as it was asked: by who asks. */
  readonly asked: Map<string, Asked>;
  /** Whether every frame is there whole, so that what is missing was not said. */
  readonly isWhole: boolean;
}

const NOTHING_MORE = { planned: "", says: "", line: null, given: null } as const;

/** Something that the plan says nothing of. */
export const noteOf = (about: string, heard: string, says = ""): LaidLine => ({
  ...NOTHING_MORE,
  about,
  heard,
  says,
  verdict: "note",
});

/** Something that is as planned, or not. */
export const lineOf = (
  { about, planned, heard }: Pick<LaidLine, "about" | "planned" | "heard">,
  {
    isRight,
    says,
    line = null,
  }: { readonly isRight: boolean; readonly says: string; readonly line?: WireLine | null },
): LaidLine => ({
  ...NOTHING_MORE,
  about,
  planned,
  heard,
  line,
  says: isRight ? "" : says,
  verdict: isRight ? "right" : "otherwise",
});

/** A priority tag is of no VLAN. */
export const vidOfTag = (vid: number | null): number | null => (vid === 0 ? null : vid);

/** What bears a tag, in words: "untagged", "in VLAN 20 Practice". */
export function tagWords({ index, port }: Listening, vid: number | null): string {
  const segment = segmentAt(index, port, vid);
  if (vid === null) return segment === null ? "untagged" : `untagged (${segment.name})`;
  return segment === null ? `in VLAN ${vid}` : `in VLAN ${vid} ${segment.name}`;
}

/** A station by its name where the plan knows its address, else by that. */
export const shortName = ({ names }: Listening, mac: string): string => names.get(mac) ?? mac;

/** The same with its address. */
export function stationName({ names }: Listening, mac: string): string {
  const name = names.get(mac);
  return name === undefined ? mac : `${name} (${mac})`;
}

export const portName = ({ index, port }: Listening): string => nameOf(index, "port", port);
