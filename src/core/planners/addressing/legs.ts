import { parseIpv4 } from "../../address";
import { followEntered } from "../register/own-network";
import type { EditContext, Refusal } from "../planner";
import { addressInSegment } from "../segments/segment-cell";

/** Writes the address of a leg; clients that asked the old one for names ask the new one. */
export function setLegAddress({ edits }: EditContext, id: string, typed: string): Refusal {
  const leg = edits.need("interface", id);
  const text = typed.trim();
  if (text === "") {
    edits.patch("interface", id, { addresses4: leg.addresses4.slice(1) });
    return null;
  }
  const segment = leg.segment === null ? undefined : edits.get("segment", leg.segment);
  const address = segment === undefined ? parseIpv4(text) : addressInSegment(segment, text);
  if (typeof address !== "number") return `"${text}" is not an IPv4 address such as 10.24.10.2.`;
  const old = leg.addresses4[0];
  edits.patch("interface", id, { addresses4: [address, ...leg.addresses4.slice(1)] });
  for (const other of edits.all("segment")) {
    if (old !== undefined && other.dns.includes(old))
      edits.patch("segment", other.id, { dns: other.dns.map((d) => (d === old ? address : d)) });
  }
  if (old !== undefined) followEntered(edits, old, address);
  return null;
}

/** Gives a device an address of its own in a segment: how it is reached for management. */
export function addLeg(
  { edits, ids }: Omit<EditContext, "index">,
  device: string,
  segmentId: string,
  typed: string,
): Refusal {
  const segment = edits.get("segment", segmentId);
  if (segment === undefined) return "Choose the segment that the address belongs to.";
  const address = addressInSegment(segment, typed);
  if (typeof address !== "number")
    return `"${typed}" is not an IPv4 address of ${segment.name}; write it whole or its last part, such as .2.`;
  edits.put("interface", {
    id: ids(),
    device,
    port: null,
    segment: segmentId,
    line: null,
    name: segment.name,
    mac: null,
    addresses4: [address],
    addresses6: [],
    relayTo: null,
    translates: "asUsual",
  });
  return null;
}

/**
 * Takes a leg away; a segment that used it as its gateway has none then, and a device that asked from it asks
 * as usual.
 */
export function removeLeg({ edits }: Pick<EditContext, "edits">, id: string): void {
  for (const segment of edits.all("segment"))
    if (segment.gatewayInterface === id) edits.patch("segment", segment.id, { gatewayInterface: null });
  for (const device of edits.all("device"))
    if (device.asksFrom === id) edits.patch("device", device.id, { asksFrom: null });
  edits.remove("interface", id);
}
