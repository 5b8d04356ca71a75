import { formatAddress } from "../../address";
import type { Carried } from "../packets";
import { Contents, type Budget, type Tagged } from "../rows";

/** Somebody said that something cannot be reached (RFC 792). */
interface Unreachable extends Tagged {
  readonly from: string;
  readonly to: string;
  /** 3 is a port at which nobody listens. */
  readonly code: number;
}
export type UnreachableFact = Unreachable & { readonly frames: number };

const DESTINATION_UNREACHABLE = 3;

/** Complaints that nobody is there; the packet that they quote is no traffic. */
export class UnreachableHeard {
  readonly #said: Contents<Unreachable>;

  constructor(budget: Budget) {
    this.#said = new Contents(budget);
  }

  add(tagged: Tagged, { src, dst, payload }: Carried): void {
    if (payload.u8(0) !== DESTINATION_UNREACHABLE || !payload.has(0, 8)) return;
    this.#said.add({ ...tagged, from: formatAddress(src()), to: formatAddress(dst()), code: payload.u8(1) });
  }

  facts(): readonly UnreachableFact[] | undefined {
    const all = this.#said.all();
    return all.length === 0 ? undefined : all;
  }
}
