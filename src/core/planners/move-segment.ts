import { ipv4, offsetIn, usableRange, containsAddress, type Address, type Ipv4, type Prefix4 } from "../address";
import type { Draft } from "../plan";

/** Moves one prefix of a segment; every gateway, pool, exclusion and fixed address in it keeps its offset where the new one has it. */
export function moveSegmentTo(draft: Draft, segmentId: string, from: Prefix4, to: Prefix4): void {
  const move = (address: Ipv4): Ipv4 => {
    if (!containsAddress(from, address)) return address;
    const moved = ipv4(to.network + offsetIn(from, address));
    return moved !== null && containsAddress(to, moved) ? moved : (usableRange(to).last as Ipv4);
  };
  const moveAny = (address: Address): Address => (typeof address === "number" ? move(address) : address);
  const moveRange = (range: { first: Address; last: Address }) => ({ first: moveAny(range.first), last: moveAny(range.last) });
  const segment = draft.need("segment", segmentId);
  draft.patch("segment", segmentId, {
    prefixes4: segment.prefixes4.map((p) => (p.network === from.network && p.length === from.length ? to : p)),
  });
  for (const leg of draft.all("interface")) {
    if (leg.segment === segmentId) draft.patch("interface", leg.id, { addresses4: leg.addresses4.map(move) });
  }
  for (const scope of draft.all("scope")) {
    if (scope.segment === segmentId) draft.patch("scope", scope.id, { pools: scope.pools.map(moveRange), exclusions: scope.exclusions.map(moveRange) });
  }
  for (const host of draft.all("host")) {
    if (host.segment === segmentId && host.ipv4 !== null) draft.patch("host", host.id, { ipv4: move(host.ipv4) });
  }
  for (const other of draft.all("segment")) {
    if (other.dns.some((d) => containsAddress(from, d)) || other.time.some((t) => containsAddress(from, t))) {
      draft.patch("segment", other.id, { dns: other.dns.map(moveAny), time: other.time.map(moveAny) });
    }
  }
}
