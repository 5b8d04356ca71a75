/** A sum of the trade: a question, what is right, and how it is worked out. */
export interface Sum {
  readonly kind: SumKind;
  readonly question: string;
  /** The answer as it is written here. */
  readonly answer: string;
  /** Whether what somebody wrote says the same; null where it is not an answer of that kind at all. */
  readonly isRight: (text: string) => boolean | null;
  /** What an answer looks like: "an address, such as 10.0.0.1". */
  readonly asks: string;
  /** How it is worked out, line by line. */
  readonly working: readonly string[];
}

export const SUM_KINDS = {
  network: "The network of an address",
  last: "The last address of a network",
  hosts: "How many devices fit",
  mask: "A mask for a length",
  length: "A length for a mask",
  smallest: "The smallest network for so many",
  inside: "Inside or outside",
  after: "The next network",
  split: "A block in parts",
  pool: "How many in a pool",
  poolEnd: "Where a pool ends",
  ports: "How many ports in a run",
  sixty: "Networks of IPv6 in a prefix",
} as const;
export type SumKind = keyof typeof SUM_KINDS;
