/** What the trade asks of something that does not work. */
export type TradeQuestion = "link" | "vlan" | "address" | "route" | "wall" | "far end";

interface KindOf {
  readonly words: string;
  /** How common it is among the faults of the trade: 1 seldom to 4 often. */
  readonly weight: 1 | 2 | 3 | 4;
  readonly asks: TradeQuestion;
}
const kind = (words: string, weight: KindOf["weight"], asks: TradeQuestion): KindOf => ({
  words,
  weight,
  asks,
});

/** The kinds of single faults that are tried. */
export const SUSPECT_KINDS = {
  vlanMissing: kind("a VLAN is missing at a port between gear", 4, "vlan"),
  vlanExtra: kind("a VLAN too many at a port between gear", 1, "vlan"),
  untagged: kind("a port is untagged in another VLAN", 4, "vlan"),
  noVlan: kind("a port is in no VLAN", 2, "vlan"),
  tagging: kind("tagged and untagged are confused at a port", 2, "vlan"),
  wireless: kind("a wireless name leads into another segment, or is not on the air", 2, "vlan"),
  portOff: kind("a port is off", 3, "link"),
  portOn: kind("a port is on that has to be off", 1, "link"),
  cable: kind("a cable is out, broken or dead", 4, "link"),
  wrongPort: kind("a cable is in another port", 3, "link"),
  label: kind("a port or socket is labelled as another", 2, "link"),
  hostOff: kind("a device is off or not plugged in", 3, "link"),
  server: kind("a DHCP server is off or not set up", 3, "address"),
  pool: kind("a pool is used up or entered wrong", 2, "address"),
  given: kind("DHCP gives a wrong gateway or name server", 2, "address"),
  relay: kind("a DHCP relay is missing", 3, "address"),
  secondServer: kind("a second DHCP server answers", 2, "address"),
  advertising: kind("a router advertises no IPv6", 2, "address"),
  entered: kind("a device has another address entered", 3, "address"),
  reservation: kind("a reservation does not match", 2, "address"),
  laptop: kind("the laptop itself", 3, "address"),
  gear: kind("gear has no or another address", 2, "route"),
  routing: kind("a route or translation is missing", 2, "route"),
  line: kind("an internet line is down", 3, "route"),
  doorShut: kind("a door in a wall is shut", 3, "wall"),
  doorOpen: kind("a wall is open", 3, "wall"),
  guard: kind("a guard is too strict", 2, "wall"),
  tree: kind("a spanning tree is set otherwise", 1, "link"),
  notSaved: kind("a device was not saved and restarted", 2, "link"),
  ownFirewall: kind("the far end's own firewall", 3, "far end"),
} as const satisfies Readonly<Record<string, KindOf>>;
export type SuspectKind = keyof typeof SUSPECT_KINDS;

/** What a kind weighs where this site's own log named it so often already: each time as much as it weighs. */
export const weightOf = (kind: SuspectKind, named: Readonly<Partial<Record<SuspectKind, number>>>): number =>
  SUSPECT_KINDS[kind].weight * (1 + (named[kind] ?? 0));

/** How common, in words. */
export const COMMON_WORDS = ["seldom", "seldom", "at times", "at times", "often"] as const;
