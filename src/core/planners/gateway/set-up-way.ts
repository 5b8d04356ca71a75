import { tunnelService } from "../../routing";
import { wallBetween } from "../../policy";
import { prefixOf } from "../../address";
import { equal } from "../../kernel";
import {
  BLANK_EXCEPTION,
  BLANK_FORWARD,
  type Exception,
  type Host,
  type Line,
  type PlanEdits,
  type RuleSide,
  type Segment,
  type Wish,
} from "../../plan";
import { nextFreeFor } from "../addressing/next-free";
import { indexOf } from "../drafted";
import { openDoor } from "../segments/set-wall";
import type { EditContext, IdSource, Refusal } from "../planner";
import { makeTunnel } from "./tunnels";

/** A way in that can be set up. */
export type Way = Exclude<Wish["way"], "open">;

/** What people who come in by a tunnel are called until somebody calls them otherwise. */
export const VPN_NAME = "By VPN";

/** A fixed address for the host, as a forward and a name need it; a sentence where none is free. */
function fixAddress({ edits }: Pick<EditContext, "edits">, host: Host): Refusal {
  if (host.ipv4 !== null && host.manner !== "dynamic") return null;
  const index = indexOf(edits);
  const segment = index.plan.segment.get(host.segment ?? "");
  const address = host.ipv4 ?? (segment === undefined ? null : nextFreeFor(index, segment, "reserved"));
  if (address === null) return `${host.name} has no fixed address, and its segment has none free.`;
  edits.patch("host", host.id, { manner: "reserved", ipv4: address });
  return null;
}

/** The first port outside, from the wanted one on, that no forward of the line has. */
function freeOutside(edits: PlanEdits, line: string, protocol: "tcp" | "udp", wanted: number): number {
  const taken = edits
    .all("forward")
    .filter((forward) => forward.line === line && forward.protocol === protocol);
  let port = wanted;
  while (port < 65_535 && taken.some(({ ports: [low, high] }) => low <= port && port <= high)) port += 1;
  return port;
}

function setUpForward(context: Omit<EditContext, "index">, wish: Wish, host: Host, line: Line): Refusal {
  const { edits, ids } = context;
  const { protocol, ports } = wish.service;
  const [first] = ports;
  if (protocol === "icmp" || first === undefined)
    return `A forward needs a port: ${wish.service.name} has none.`;
  const refusal = fixAddress(context, host);
  if (refusal !== null) return refusal;
  const known = edits
    .all("forward")
    .find(
      (forward) =>
        forward.host === host.id &&
        forward.line === line.id &&
        forward.protocol === protocol &&
        (forward.toPort ?? forward.ports[0]) === first[0],
    );
  if (known !== undefined) {
    edits.patch("forward", known.id, { sources: [...wish.from], until: null });
    return null;
  }
  const outside = freeOutside(edits, line.id, protocol, first[0]);
  edits.put("forward", {
    ...BLANK_FORWARD,
    id: ids(),
    name: wish.name,
    line: line.id,
    host: host.id,
    protocol,
    ports: [outside, outside + first[1] - first[0]],
    toPort: outside === first[0] ? null : first[0],
    sources: [...wish.from],
  });
  return null;
}

/** The segment of those who come in by a tunnel at a device, made where there is none; a sentence why not. */
function tunnelAt(context: Omit<EditContext, "index">, device: string, line: Line): Segment | string {
  const { edits } = context;
  const own = new Set(edits.all("interface").flatMap((leg) => (leg.device === device ? [leg.segment] : [])));
  const known = edits
    .all("segment")
    .find(
      ({ id, tunnel }) =>
        own.has(id) && tunnel?.kind === "users" && (tunnel.line === null || tunnel.line === line.id),
    );
  return known ?? makeTunnel(context, { name: VPN_NAME, device });
}

/** Opens a tunnel's own port at the gateway, and the way on from it: to the one device, by the one service. */
function openTunnel(edits: PlanEdits, ids: IdSource, tunnel: Segment, wish: Wish): void {
  if (tunnel.tunnel !== null)
    openDoor(edits, ids, {
      from: { at: "internet" },
      to: { at: "gateway" },
      service: tunnelService(tunnel.tunnel),
    });
  openFor(edits, ids, wish, {
    from: { at: "segment", segment: tunnel.id },
    to: { at: "host", host: wish.host },
  });
}

/** Lets a wish's service pass beside the walls between two ends; what is there already is left. */
function openFor(
  edits: PlanEdits,
  ids: IdSource,
  { name, service }: Wish,
  ends: Pick<Exception, "from" | "to">,
): void {
  const known = edits
    .all("exception")
    .some(
      ({ from, to, services, hours, lastDay }) =>
        equal({ from, to }, ends) && equal(services, [service]) && hours === null && lastDay === null,
    );
  if (known) return;
  edits.put("exception", {
    id: ids(),
    name,
    ...BLANK_EXCEPTION,
    ...ends,
    services: [service],
    reason: "a way in from outside",
  });
}

/** Opens the pinhole: the host's own IPv6 address, to those who ask, by the one service. */
function setUpPinhole({ edits, ids }: Omit<EditContext, "index">, wish: Wish, host: Host): Refusal {
  const to = host.ipv6 === null ? null : prefixOf(host.ipv6, 128);
  if (to === null) return `${host.name} has no IPv6 address in the plan; write it into the register.`;
  const sources = wish.from.filter(({ family }) => family === 6);
  if (sources.length === 0 && wish.from.length > 0)
    return `Those who ask for ${wish.name} are known by IPv4 addresses only; write their IPv6 ones.`;
  const from: RuleSide[] =
    sources.length === 0 ? [{ at: "internet" }] : sources.map((prefix) => ({ at: "prefix", prefix }));
  for (const side of from) openFor(edits, ids, wish, { from: side, to: { at: "prefix", prefix: to } });
  return null;
}

/** Where a line ends; null for one that ends at no device. */
const endOfLine = (edits: PlanEdits, line: string): string | null =>
  edits.all("interface").find((leg) => leg.line === line)?.device ?? null;

/**
 * Sets up one way in for a wish, by one line: the forward with a fixed address; the VPN with its zone, subnet
 * and doors; the door outwards; the door for IPv6. What is there already is used. A sentence why not.
 */
export function setUpWay(
  context: Omit<EditContext, "index">,
  { wish: id, way, line: lineId }: { readonly wish: string; readonly way: Way; readonly line: string },
): Refusal {
  const { edits, ids } = context;
  const wish = edits.need("wish", id);
  const line = edits.need("line", lineId);
  const host = edits.need("host", wish.host);
  const segment = host.segment === null ? undefined : edits.get("segment", host.segment);
  if (segment === undefined) return `${host.name} is in no segment; say where it belongs first.`;
  const zone = { at: "zone", zone: segment.zone } as const;
  const refusal = ((): Refusal => {
    switch (way) {
      case "forward":
        return setUpForward(context, wish, host, line);
      case "vpn": {
        const device = endOfLine(edits, line.id);
        if (device === null) return `${line.name} ends at no device; plug it into the gateway first.`;
        const tunnel = tunnelAt(context, device, line);
        if (typeof tunnel === "string") return tunnel;
        openTunnel(edits, ids, tunnel, wish);
        return fixAddress(context, host);
      }
      case "push": {
        const out = wallBetween(indexOf(edits), zone, { at: "internet" });
        if (out?.door !== "open")
          openDoor(edits, ids, { from: zone, to: { at: "internet" }, service: wish.service });
        return null;
      }
      case "ipv6":
        return setUpPinhole(context, wish, host);
    }
  })();
  if (refusal !== null) return refusal;
  edits.patch("wish", wish.id, { way });
  return null;
}
