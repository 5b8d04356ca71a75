import type { Cable, Link, Optic, Port } from "../plan";

type Fibre = "multimode" | "singlemode";
interface OpticFacts {
  readonly mbps: number;
  readonly kind: "copper" | "directAttach" | Fibre;
  /** How far it reaches, in m, by cable. */ readonly reach: Partial<Record<Cable, number>>;
}

const COPPER_1G = { cat5e: 100, cat6: 100, cat6a: 100, cat8: 100 } as const;
const SINGLE = (m: number) => ({ os1: m, os2: m }) as const;

/**
 * Reaches of IEEE 802.3: clauses 38 (1000BASE-SX, -LX), 52 (10GBASE-S, -L, -E), 112 and 114 (25GBASE-SR,
 * -LR), 86 and 87 (40GBASE-SR4, -LR4), 95 and 88 (100GBASE-SR4, -LR4).
 */
const FACTS: Readonly<Record<Exclude<Optic, "none">, OpticFacts>> = {
  "1000BASE-T": { mbps: 1000, kind: "copper", reach: COPPER_1G },
  "1000BASE-SX": {
    mbps: 1000,
    kind: "multimode",
    reach: { om1: 275, om2: 550, om3: 550, om4: 550, om5: 550 },
  },
  "1000BASE-LX": { mbps: 1000, kind: "singlemode", reach: SINGLE(5000) },
  "10GBASE-T": { mbps: 10_000, kind: "copper", reach: { cat6: 55, cat6a: 100, cat8: 100 } },
  "10GBASE-SR": {
    mbps: 10_000,
    kind: "multimode",
    reach: { om1: 33, om2: 82, om3: 300, om4: 400, om5: 400 },
  },
  "10GBASE-LR": { mbps: 10_000, kind: "singlemode", reach: SINGLE(10_000) },
  "10GBASE-ER": { mbps: 10_000, kind: "singlemode", reach: SINGLE(40_000) },
  "25GBASE-SR": { mbps: 25_000, kind: "multimode", reach: { om3: 70, om4: 100, om5: 100 } },
  "25GBASE-LR": { mbps: 25_000, kind: "singlemode", reach: SINGLE(10_000) },
  "40GBASE-SR4": { mbps: 40_000, kind: "multimode", reach: { om3: 100, om4: 150, om5: 150 } },
  "40GBASE-LR4": { mbps: 40_000, kind: "singlemode", reach: SINGLE(10_000) },
  "100GBASE-SR4": { mbps: 100_000, kind: "multimode", reach: { om3: 70, om4: 100, om5: 100 } },
  "100GBASE-LR4": { mbps: 100_000, kind: "singlemode", reach: SINGLE(10_000) },
  "direct attach": { mbps: 0, kind: "directAttach", reach: { twinax: 7 } },
};

export const fibreOf = (cable: Cable): Fibre | null => {
  if (cable.startsWith("om")) return "multimode";
  if (cable.startsWith("os")) return "singlemode";
  return null;
};
const isCopperCable = (cable: Cable): boolean => cable.startsWith("cat");

/** Names of cables for people. */
export const CABLE_WORDS: Readonly<Record<Cable, string>> = {
  unknown: "not known",
  cat5e: "Category 5e",
  cat6: "Category 6",
  cat6a: "Category 6A",
  cat8: "Category 8",
  om1: "OM1 multimode",
  om2: "OM2 multimode",
  om3: "OM3 multimode",
  om4: "OM4 multimode",
  om5: "OM5 multimode",
  os1: "OS1 single-mode",
  os2: "OS2 single-mode",
  twinax: "twinaxial",
};
/** The same in a word, for a cell. */
export const CABLE_SHORT: Readonly<Record<Cable, string>> = {
  unknown: "",
  cat5e: "Cat 5e",
  cat6: "Cat 6",
  cat6a: "Cat 6A",
  cat8: "Cat 8",
  om1: "OM1",
  om2: "OM2",
  om3: "OM3",
  om4: "OM4",
  om5: "OM5",
  os1: "OS1",
  os2: "OS2",
  twinax: "twinax",
};
export const MEDIUM_WORDS: Readonly<Record<Link["medium"], string>> = {
  copper: "copper",
  fibre: "fibre",
  directAttach: "direct attach",
};

/** The cables that a medium can be. */
export const cablesFor = (medium: Link["medium"]): Cable[] =>
  (Object.keys(CABLE_WORDS) as Cable[]).filter((cable) => {
    if (cable === "unknown") return true;
    if (medium === "copper") return isCopperCable(cable);
    return medium === "fibre" ? fibreOf(cable) !== null : cable === "twinax";
  });

/** The optics that a port of a speed can take. */
export const opticsFor = (port: Pick<Port, "medium" | "speedMbps">): Optic[] =>
  port.medium === "copper"
    ? ["none"]
    : [
        "none",
        ...(Object.keys(FACTS) as Exclude<Optic, "none">[]).filter(
          (optic) => FACTS[optic].mbps <= port.speedMbps,
        ),
      ];

/** The speed a port runs at: its own, or that of what is plugged into it when that is slower. */
export const portSpeed = (port: Port): number => {
  const optic = port.optic === "none" ? 0 : FACTS[port.optic].mbps;
  return optic > 0 ? Math.min(optic, port.speedMbps) : port.speedMbps;
};

/** A cable runs at what both of its ports can. */
export const linkSpeed = (a: Port, b: Port): number => Math.min(portSpeed(a), portSpeed(b));

const COPPER_REACH: readonly (readonly [mbps: number, reach: Partial<Record<Cable, number>>])[] = [
  [1000, COPPER_1G],
  [2500, { cat5e: 100, cat6: 100, cat6a: 100, cat8: 100 }],
  [5000, { cat5e: 100, cat6: 100, cat6a: 100, cat8: 100 }],
  [10_000, FACTS["10GBASE-T"].reach],
  [40_000, { cat8: 30 }],
];

/**
 * How far a cable may reach at the speed of its ports, in m: null when the kind of cable is not known (copper
 * then has 100 m, the channel of ISO/IEC 11801), 0 when this cable doesn't carry that speed at all.
 */
export function reachOf(link: Link, a: Port, b: Port): number | null {
  const optics = [a.optic, b.optic].filter((optic): optic is Exclude<Optic, "none"> => optic !== "none");
  if (link.medium === "copper") {
    if (link.cable === "unknown") return 100;
    const speed = linkSpeed(a, b);
    const row = COPPER_REACH.find(([mbps]) => mbps >= speed);
    return row === undefined ? 0 : (row[1][link.cable] ?? 0);
  }
  if (link.cable === "unknown" || optics.length === 0) return null;
  return Math.min(...optics.map((optic) => FACTS[optic].reach[link.cable] ?? 0));
}

/** What a port takes, in words: what is plugged into its cage, or the cage or socket itself. */
function takenBy({ optic, medium }: Port): string {
  if (optic !== "none") return optic;
  return medium === "directAttach" ? "direct attach" : medium;
}

/**
 * Why the ends and the cable don't belong together, in words that go on from the cable's name; null when they
 * do as far as one knows.
 */
export function misfit(link: Link, a: Port, b: Port): string | null {
  const accepts = (port: Port, medium: Link["medium"]): boolean => {
    if (port.optic !== "none")
      return (
        FACTS[port.optic].kind === medium ||
        (medium === "fibre" && ["multimode", "singlemode"].includes(FACTS[port.optic].kind))
      );
    if (port.medium === "combo") return true;
    return port.medium === medium || (port.medium === "fibre" && medium === "directAttach");
  };
  for (const port of [a, b]) {
    if (!accepts(port, link.medium))
      return `is ${MEDIUM_WORDS[link.medium]}, and port ${port.label} takes ${takenBy(port)}`;
  }
  if (link.cable !== "unknown" && !cablesFor(link.medium).includes(link.cable))
    return `is called ${MEDIUM_WORDS[link.medium]}, and ${CABLE_WORDS[link.cable]} is not`;
  const fibre = fibreOf(link.cable);
  for (const { optic, label } of [a, b]) {
    if (optic === "none" || fibre === null) continue;
    const { kind } = FACTS[optic];
    if (kind !== fibre && (kind === "multimode" || kind === "singlemode"))
      return (
        `is ${CABLE_WORDS[link.cable]}, and the optic in port ${label}, ` +
        `${optic}, needs ${kind === "multimode" ? "multimode" : "single-mode"}`
      );
  }
  if (a.optic !== "none" && b.optic !== "none" && a.optic !== b.optic)
    return (
      `has ${a.optic} in port ${a.label} and ${b.optic} in ` +
      `port ${b.label}; the two don't understand each other`
    );
  return null;
}

/** A speed as the trade writes it. */
export const speedText = (mbps: number): string =>
  mbps >= 1000 ? `${mbps / 1000} Gbit/s` : `${mbps} Mbit/s`;
