import { classify, FABRIC, type Tag } from "../fabric";
import type { PlanIndex } from "../plan";
import type { Step } from "../probe";

/** A port that a frame left by or came in at, and the VLAN it was in there. */
export interface Crossing {
  readonly port: string;
  readonly vid: number;
}

/**
 * The ports between gear that a journey crosses, each with its VLAN. A frame is on a wire from a step that
 * shows its tag to the next one; where it is untagged, the port that takes it in says which VLAN it is in
 * (IEEE 802.1Q section 8.6.1), and before that the one that let it in.
 */
export function crossingsOf(index: PlanIndex, steps: readonly Step[]): Crossing[] {
  const fabric = index.derived(FABRIC);
  const vidAt = (port: string, tag: Tag): number | null => {
    const own = fabric.ports[fabric.portNumber.get(port) ?? -1];
    return own === undefined ? null : classify(own, tag);
  };
  const found: Crossing[] = [];
  const add = (port: string, vid: number | null) => {
    if (vid !== null) found.push({ port, vid });
  };
  let wire: { readonly tag: Tag } | null = null;
  for (const { ports, tag } of steps) {
    const [first, second] = ports;
    const here: string | undefined = wire === null ? undefined : first;
    const inside: number | null = here === undefined || wire === null ? null : vidAt(here, wire.tag);
    if (here !== undefined) add(here, inside);
    const out: string | undefined = here === undefined && second === undefined ? first : second;
    if (tag !== undefined && out !== undefined) add(out, tag ?? inside);
    wire = tag === undefined || out === undefined ? null : { tag };
  }
  return found;
}
