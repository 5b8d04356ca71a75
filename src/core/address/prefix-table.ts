import type { Address, Family } from "./address";
import { familyOf } from "./address";
import { network4, network6 } from "./bits";
import type { Prefix } from "./prefix";

/** Values of one prefix length in one family, by their network. */
interface OfLength<Value> {
  readonly length: number;
  readonly byNetwork: Map<Address, Value[]>;
}

/**
 * Values by prefix. What holds an address is found with one look for each length that occurs, not one for each
 * prefix: a router with thousands of subnets is asked with every packet.
 */
export class PrefixTable<Value> {
  /** By family, the longest prefixes first. */
  readonly #lengths: Readonly<Record<Family, OfLength<Value>[]>> = { 4: [], 6: [] };

  add({ family, network, length }: Prefix, value: Value): void {
    const lengths = this.#lengths[family];
    let own = lengths.find((ofLength) => ofLength.length === length);
    if (own === undefined) {
      own = { length, byNetwork: new Map() };
      lengths.push(own);
      lengths.sort((a, b) => b.length - a.length);
    }
    const known = own.byNetwork.get(network);
    if (known === undefined) own.byNetwork.set(network, [value]);
    else known.push(value);
  }

  /** The values of all prefixes that hold an address: the longest first, of one prefix as they were added. */
  holding(address: Address): Value[] {
    const found: Value[] = [];
    for (const { length, byNetwork } of this.#lengths[familyOf(address)]) {
      const network = typeof address === "number" ? network4(address, length) : network6(address, length);
      const values = byNetwork.get(network as Address);
      if (values !== undefined) found.push(...values);
    }
    return found;
  }
}
