import { classify } from "../fabric";
import type { Port } from "../plan";
import type { Failure } from "./kinds";
import { together, type Spot, type State } from "./state";

/** The VLANs that two ends of a cable both carry, by their numbers inside the two devices. */
const sharedVids = (a: Port, b: Port): number[] =>
  [...a.untagged, ...a.tagged].filter((vid) =>
    a.untagged.includes(vid) ? classify(b, null) === vid : b.tagged.includes(vid),
  );

/**
 * Where frames go round after one strand of a fibre is dead: the end that hears nothing takes itself for
 * designated when what it heard has aged out, and forwards (IEEE 802.1Q section 13.29.22); the other end goes
 * on as it was. Where another way joins the two, frames then come back by the strand that still carries. A
 * loop guard at the deaf end keeps it discarding, and where no other way is there is no loop.
 */
export function stormIn(state: State, failures: readonly Failure[]): Spot[] {
  const { index, fabric } = state;
  return failures.flatMap((failure): Spot[] => {
    const deaf = failure.what === "strand" ? index.plan.port.get(failure.id) : undefined;
    const far = deaf === undefined ? undefined : index.peerOf(deaf.id);
    if (deaf === undefined || far === undefined || deaf.guards.loopGuard) return [];
    const [own, other] = [fabric.deviceNumber.get(deaf.device), fabric.deviceNumber.get(far.device)];
    if (own === undefined || other === undefined) return [];
    return sharedVids(deaf, far)
      .filter((vid) => together(state, { device: own, vid }, { device: other, vid }))
      .map((vid) => ({ device: own, vid }));
  });
}

/** Whether a place is in a VLAN in which frames go round. */
export const isInStorm = (state: State, storm: readonly Spot[], spot: Spot | null): boolean =>
  storm.some((other) => together(state, other, spot));
