import { formatAddress, formatPrefix, parseAddress } from "../address";
import { type Exception, type Kind, type PlanIndex, nameOf } from "../plan";
import {
  exceptionCellText,
  forwardCellText,
  leafletText,
  serviceCellText,
  windowCellText,
  wishCellText,
} from "../planners";
import { devicesInOrder } from "./port-sheet";
import { segmentsInOrder } from "./segment-sheet";

/** Something of the plan that a search found, with what tells it from others of its kind. */
export interface Hit {
  readonly kind: Kind;
  readonly id: string;
  readonly name: string;
  readonly detail: string;
}

/** When work may stop others, and what leaflets say. */
function* windowsAndLeaflets(index: PlanIndex): Generator<Hit> {
  for (const window of index.plan.window.values())
    yield {
      kind: "window",
      id: window.id,
      name: window.name,
      detail: `window: ${windowCellText(index, window, "starts")}`,
    };
  for (const leaflet of index.plan.leaflet.values())
    yield {
      kind: "leaflet",
      id: leaflet.id,
      name: `Leaflet of ${leaflet.model}`,
      detail: leafletText(leaflet, "address"),
    };
}

/** What lets something pass: forwards, and rules that stand on devices. */
function* passes(index: PlanIndex): Generator<Hit> {
  for (const forward of index.plan.forward.values())
    yield {
      kind: "forward",
      id: forward.id,
      name: forward.name,
      detail: `${forwardCellText(index, forward, "outside")}, ${nameOf(index, "host", forward.host)}`,
    };
  const ends = (exception: Exception) =>
    (["from", "to"] as const).map((end) => exceptionCellText(index, exception, end));
  for (const exception of index.plan.exception.values())
    yield {
      kind: "exception",
      id: exception.id,
      name: exception.name,
      detail: `exception: ${ends(exception).join(" to ")}`,
    };
  for (const service of index.plan.service.values())
    yield {
      kind: "service",
      id: service.id,
      name: service.name,
      detail: `service: ${serviceCellText(service, "is")}`,
    };
  for (const profile of index.plan.signIn.values())
    yield { kind: "signIn", id: profile.id, name: profile.name, detail: "sign-in profile" };
  for (const conduit of index.plan.conduit.values())
    yield { kind: "conduit", id: conduit.id, name: conduit.name, detail: "conduit" };
  for (const wish of index.plan.wish.values())
    yield {
      kind: "wish",
      id: wish.id,
      name: wish.name,
      detail: `from outside: ${wishCellText(index, wish, "service")}, ${nameOf(index, "host", wish.host)}`,
    };
  yield* windowsAndLeaflets(index);
  for (const device of devicesInOrder(index))
    for (const [at, rule] of index.rulesOf(device.id).entries())
      yield { kind: "rule", id: rule.id, name: `Rule ${at + 1} of ${device.name}`, detail: rule.note };
}

// eslint-disable-next-line complexity -- one loop for each kind, in the order in which they are offered
function* candidates(index: PlanIndex): Generator<Hit> {
  const { plan } = index;
  for (const segment of segmentsInOrder(index)) {
    yield {
      kind: "segment",
      id: segment.id,
      name: segment.name,
      detail: [`VLAN ${index.vidOf(segment) ?? "–"}`, ...segment.prefixes4.map(formatPrefix)].join(", "),
    };
  }
  for (const room of plan.room.values())
    yield { kind: "room", id: room.id, name: room.name, detail: room.needs };
  for (const gear of plan.gear.values())
    yield { kind: "gear", id: gear.id, name: gear.name, detail: gear.fate };
  for (const device of devicesInOrder(index))
    yield {
      kind: "device",
      id: device.id,
      name: device.name,
      detail: [device.model, device.place, device.bridgeMac ?? "", device.serial]
        .filter((t) => t !== "")
        .join(", "),
    };
  for (const host of plan.host.values()) {
    yield {
      kind: "host",
      id: host.id,
      name: host.name,
      detail: [host.ipv4 === null ? "" : formatAddress(host.ipv4), host.mac ?? "", host.place]
        .filter((t) => t !== "")
        .join(", "),
    };
  }
  for (const line of plan.line.values())
    yield {
      kind: "line",
      id: line.id,
      name: line.name,
      detail: [line.nextHop4, line.nextHop6]
        .flatMap((hop) => (hop === null ? [] : [`next hop ${formatAddress(hop)}`]))
        .join(", "),
    };
  yield* passes(index);
  for (const ssid of plan.ssid.values())
    yield { kind: "ssid", id: ssid.id, name: ssid.name, detail: plan.segment.get(ssid.segment)?.name ?? "" };
  for (const link of plan.link.values())
    yield {
      kind: "link",
      id: link.id,
      name: link.label === "" ? "Cable" : link.label,
      detail: [link.a, link.b].map((port) => nameOf(index, "port", port)).join(" to "),
    };
  for (const port of plan.port.values())
    yield {
      kind: "port",
      id: port.id,
      name: nameOf(index, "port", port.id),
      detail: [port.softwareName, port.note].filter((t) => t !== "").join(", "),
    };
}

/**
 * What answers to the text, names that begin with it first; an address finds exactly its holders. At most
 * `limit`.
 */
export function find(index: PlanIndex, text: string, limit: number): Hit[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === "") return [];
  const address = parseAddress(wanted);
  if (address !== null) {
    const hops = [...index.plan.line.values()]
      .filter((line) => line.nextHop4 === address || line.nextHop6 === address)
      .map((line): Hit => ({
        kind: "line",
        id: line.id,
        name: line.name,
        detail: `next hop ${formatAddress(address)}`,
      }));
    return [
      ...hops,
      ...index.holdersOf(address).map((holder): Hit =>
        "device" in holder
          ? {
              kind: "interface",
              id: holder.id,
              name: nameOf(index, "interface", holder.id),
              detail: formatAddress(address),
            }
          : { kind: "host", id: holder.id, name: holder.name, detail: formatAddress(address) },
      ),
    ].slice(0, limit);
  }
  const words = wanted.split(/\s+/);
  const first: Hit[] = [];
  const others: Hit[] = [];
  for (const hit of candidates(index)) {
    const all = `${hit.name} ${hit.detail}`.toLowerCase();
    if (!words.every((word) => all.includes(word))) continue;
    if (hit.name.toLowerCase().startsWith(wanted)) first.push(hit);
    else if (others.length < limit) others.push(hit);
    if (first.length >= limit) break;
  }
  return [...first, ...others].slice(0, limit);
}
