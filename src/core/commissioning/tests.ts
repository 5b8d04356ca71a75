import type { Address, AddressRange } from "../address";
import type { ProbeAs, ProbePlace, ProbeQuestion } from "../plan";
import type { Outcome } from "../probe";

/** What has to be read. */
export type Expected =
  /** A device that asks gets an address: of one of these ranges, or exactly this one. */
  | {
      readonly is: "lease";
      readonly segment: string | null;
      readonly address: Address | null;
      readonly ranges: readonly AddressRange[];
      readonly gateway: Address | null;
      readonly dns: readonly Address[];
      readonly leaseSeconds: number | null;
    }
  /** The port is off: no light, no link. */
  | { readonly is: "no link" }
  /** No address, with the reason. */
  | { readonly is: "no lease"; readonly why: string }
  | { readonly is: "answer" }
  | { readonly is: "silence"; readonly why: string }
  /** A figure that an instrument shows, within its bounds. */
  | {
      readonly is: "measured";
      readonly what: string;
      readonly unit: string;
      readonly least: number | null;
      readonly most: number | null;
    }
  /** What a device's own pages show, line by line. */
  | { readonly is: "shown"; readonly lines: readonly (readonly [name: string, value: string])[] };

/** What is pulled out for a reading, and put back after it: a cable, a line, the servers of a sign-in. */
export interface Pulled {
  readonly what: "link" | "line" | "servers";
  readonly id: string;
}

/** One reading that can be taken on site, and what it proves. */
export interface SiteTest {
  /** The same as long as it is the same question. */
  readonly id: string;
  /** Where one stands: a place of the site; empty where nobody said. */
  readonly place: string;
  /** Where the laptop is, or at which device one looks. */
  readonly at: string;
  /** What is done there. */
  readonly does: string;
  /** What is asked of the simulation; null where a device's own pages are looked at. */
  readonly question: ProbeQuestion | null;
  /** What is pulled out while it is asked; null where nothing is. */
  readonly pulled: Pulled | null;
  readonly expected: Expected;
  /** The facts that it proves, by their ids. */
  readonly proves: readonly string[];
}

/** A place that a laptop can be at. */
export interface Spot {
  /** The fact that it shows what this port, or this name here, gives. */
  readonly fact: string;
  readonly key: string;
  readonly from: ProbePlace;
  readonly place: string;
  readonly at: string;
}

/** How somebody fared, without what was said on the wires: of thousands that fills the memory. */
export type Fared = Pick<Outcome, "cause" | "lease" | "steps">;
/** The laptop at a spot, asking for an address. */
export interface Asked {
  readonly test: SiteTest;
  readonly spot: Spot;
  readonly outcome: Fared;
}
/** A laptop that asks for something: where, and with which address. */
export interface Start {
  readonly spot: Spot;
  /** What is entered on the laptop first, as a sentence ends; empty where it asks for its address. */
  readonly entered: string;
  readonly as: ProbeAs;
}
/** One of those, with what it has an address of. */
export interface Asker extends Start {
  /** The segment that it has an address of; null for none of the plan. */
  readonly segment: string | null;
}
