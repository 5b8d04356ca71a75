import { nextFreeSubnet, parsePrefix, type Prefix4 } from "../../address";
import { BLANK_SEGMENT, type Plan, type Segment } from "../../plan";
import { markFor, tapeFor } from "../addressing/conventions";
import { forbiddenRanges } from "../addressing/forbidden";
import { gatewayIn } from "../addressing/static-block";
import { planOf } from "../drafted";
import type { EditContext } from "../planner";
import { zoneNamed } from "../segments/add-segment";

/** Where the gateway answers a tunnel: a port of the dynamic range (RFC 6335 section 6). */
const VPN_PORT = 51_900;

/** A subnet for those who come in by a tunnel: the highest free /28 of the site's blocks. */
function tunnelSubnet(plan: Plan): Prefix4 | null {
  const taken = [
    ...[...plan.segment.values()].flatMap(({ prefixes4 }) => prefixes4),
    ...forbiddenRanges(plan).map(({ prefix }) => prefix),
  ];
  for (const block of [...plan.site.blocks, parsePrefix("10.90.0.0/16")]) {
    if (block?.family !== 4) continue;
    const free = nextFreeSubnet(block, Math.max(28, block.length), taken);
    if (free?.family === 4) return free;
  }
  return null;
}

/**
 * A segment that is reached by a tunnel, in a zone of its own, with the device's leg in it; a sentence where
 * the site's blocks have no room. Without a subnet a free one is taken.
 */
export function makeTunnel(
  { edits, ids }: Omit<EditContext, "index">,
  {
    name,
    device,
    kind = "users",
    subnet = null,
  }: {
    readonly name: string;
    readonly device: string;
    readonly kind?: "users" | "site";
    readonly subnet?: Prefix4 | null;
  },
): Segment | string {
  const plan = planOf(edits);
  const prefix = subnet ?? tunnelSubnet(plan);
  if (prefix === null)
    return "The site's blocks have no room for those who come in by a tunnel; add a block.";
  // The far end of a site's tunnel has its own router: ours has no address there.
  const own = kind === "users" ? [gatewayIn(plan.site.conventions, prefix)] : [];
  const [segment, leg] = [ids(), ids()];
  edits.put("interface", {
    id: leg,
    device,
    port: null,
    segment,
    line: null,
    name,
    mac: null,
    addresses4: own,
    addresses6: [],
    relayTo: null,
    translates: "asUsual",
  });
  return edits.put("segment", {
    ...BLANK_SEGMENT,
    id: segment,
    zone: zoneNamed(edits, ids, name),
    vlan: null,
    name,
    mark: markFor(plan, name),
    tape: tapeFor(plan),
    prefixes4: [prefix],
    gatewayInterface: leg,
    dns: own,
    tunnel: { kind, protocol: "udp", port: VPN_PORT, line: null },
  });
}
