import { freePrefixes, parsePrefix, prefixOf, type Address, type Family, type Prefix } from "../../address";
import { must } from "../../kernel";
import { prefixesOf, type Device, type PlanIndex, type Segment } from "../../plan";
import { INTERNET, type Side } from "../../policy";
import { addressesOf } from "../../routing";

const everything = (text: string): Prefix => must(parsePrefix(text), text);
/** All addresses of a family. */
export const EVERYWHERE: Readonly<Record<Family, Prefix>> = {
  4: everything("0.0.0.0/0"),
  6: everything("::/0"),
};

/** The device's own addresses of a family, each as a prefix. */
export const ownPrefixes = (index: PlanIndex, device: Device, family: Family): Prefix[] =>
  [...new Set(index.interfacesOf(device.id).flatMap((leg) => addressesOf(leg, family)))].flatMap(
    (address: Address) => prefixOf(address, family === 4 ? 32 : 128) ?? [],
  );

/** Where the internet lies: whatever is in no subnet of the site. */
export const outsidePrefixes = ({ plan }: PlanIndex, family: Family): Prefix[] =>
  freePrefixes(
    EVERYWHERE[family],
    [...plan.segment.values()].flatMap((segment) => prefixesOf(segment, family)),
  );

/** The ends of rules as prefixes of one family: an access list knows no zones (RFC 8519 section 4.1). */
export class EndsAsPrefixes {
  readonly #index: PlanIndex;
  readonly #family: Family;
  readonly #own: readonly Prefix[];
  readonly #outside: readonly Prefix[];
  readonly #segmentsOf: (network: string) => readonly Segment[];

  /** `segmentsOf` says which segments a network of the rules stands for. */
  constructor(
    index: PlanIndex,
    device: Device,
    family: Family,
    segmentsOf: (network: string) => readonly Segment[],
  ) {
    this.#index = index;
    this.#family = family;
    this.#own = ownPrefixes(index, device, family);
    this.#outside = outsidePrefixes(index, family);
    this.#segmentsOf = segmentsOf;
  }

  /** The prefixes that an end takes in; null for any address. The device itself has its own addresses. */
  of({ network, prefixes }: Side): readonly (Prefix | null)[] {
    if (network === "router") return this.#own;
    if (prefixes !== null) return prefixes.filter(({ family }) => family === this.#family);
    if (network === "any") return [null];
    if (network === INTERNET) return this.#outside;
    return this.#segmentsOf(network).flatMap((segment) => prefixesOf(segment, this.#family));
  }

  /** Whether any segment of the site has a subnet of the family. */
  get hasPlanned(): boolean {
    return [...this.#index.plan.segment.values()].some(
      (segment) => prefixesOf(segment, this.#family).length > 0,
    );
  }
}
