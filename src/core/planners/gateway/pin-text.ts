import type { Pin, PlanIndex } from "../../plan";
import { readServices, servicesText } from "../rules/service-list-text";
import { pieces, quoted } from "../rules/side-text";

const STAYS = /\s*\(?\bor (nothing|nowhere)\)?$/i;
const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** What one piece names: a segment by name or mark, somebody of the register, or services. */
function onePin(index: PlanIndex, piece: string): readonly Pin[] | string {
  const orElse = STAYS.test(piece) ? "stays" : "next";
  const name = piece.replace(STAYS, "");
  const { plan } = index;
  const segments = [...plan.segment.values()].filter(
    (segment) => alike(segment.name, name) || alike(segment.mark, name),
  );
  const hosts = [...plan.host.values()].filter((host) => alike(host.name, name));
  if (segments.length + hosts.length > 1)
    return `"${name}" is the name of several segments or devices; give one of them another name.`;
  if (segments[0] !== undefined) return [{ what: "segment", segment: segments[0].id, orElse }];
  if (hosts[0] !== undefined) return [{ what: "host", host: hosts[0].id, orElse }];
  const services = readServices(index, name);
  return typeof services === "string" || services.length === 0
    ? `There is no segment, device or service called "${name}"; write one of theirs, or tcp 443, udp 5060.`
    : services.map((service): Pin => ({ what: "service", service, orElse }));
}

/** What is pinned to a line, with commas between; "or nothing" behind what may not go by another line. */
export function readPins(index: PlanIndex, text: string): readonly Pin[] | string {
  const pins: Pin[] = [];
  for (const piece of pieces(text)) {
    if (/^(none|nothing)$/i.test(piece)) continue;
    const read = onePin(index, piece);
    if (typeof read === "string") return read;
    pins.push(...read);
  }
  return pins.length > 64 ? `At most 64 can be pinned to a line; these are ${pins.length}.` : pins;
}

function pinText(index: PlanIndex, pin: Pin): string {
  const or = pin.orElse === "stays" ? " or nothing" : "";
  switch (pin.what) {
    case "segment":
      return quoted(`${index.plan.segment.get(pin.segment)?.name ?? "a removed segment"}${or}`);
    case "host":
      return quoted(`${index.plan.host.get(pin.host)?.name ?? "a removed device"}${or}`);
    case "service":
      return `${servicesText(index, [pin.service])}${or}`;
  }
}

/** What is pinned to a line as `readPins` reads it. */
export const pinsText = (index: PlanIndex, pins: readonly Pin[]): string =>
  [...new Set(pins.map((pin) => pinText(index, pin)))].join(", ");
