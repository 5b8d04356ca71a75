import type { Segment } from "../plan";
import type { Network } from "./filter";

export const INTERNET: Network = "internet";
/**
 * The network a segment counts as at a gateway: its zone. Segments of one zone are told apart by the packet's
 * own rule.
 */
export const networkOfSegment = ({ zone }: Pick<Segment, "zone">): Network => zone;
