/** What is to be proven on site. */
export type FactKind =
  | "vlan"
  | "role"
  | "wireless"
  | "scope"
  | "ipv6"
  | "address"
  | "way in"
  | "baseline"
  | "wall"
  | "tree"
  | "speed"
  | "power"
  | "spare"
  | "failover"
  | "sign-in"
  | "level"
  | "cable";

export interface Fact {
  /** The same as long as it is the same that is to be proven. */
  readonly id: string;
  readonly kind: FactKind;
  readonly words: string;
  /** Whose configuration shows it, where nothing that a laptop reads does; null where only trying does. */
  readonly shownOn: { readonly device: string } | { readonly host: string } | null;
}

/** A line that is read: what it is about, and what stands there. */
export type Line = readonly [name: string, value: string];
