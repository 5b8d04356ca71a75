import { equal } from "../kernel";
import type { Change, PlanIndex } from "../plan";

/** What an edit was made of and became; a row that came or went has no two sides. */
interface Sides<T> {
  readonly before: T | null;
  readonly after: T | null;
}

/** Whether an edit leaves these fields as they were: sentences, which names change, are made when shown. */
const leaves = <T extends object>({ before, after }: Sides<T>, fields: readonly (keyof T)[]): boolean =>
  before !== null && after !== null && fields.every((field) => equal(before[field], after[field]));

/**
 * The ports whose findings a change may alter: itself, both ends of a cable, where a host is or was plugged
 * in.
 */
export function portsTouched(_index: PlanIndex, change: Change): readonly string[] | "all" {
  switch (change.kind) {
    case "port":
      return [change.id];
    case "link":
      return [change.before, change.after].flatMap((link) => (link === null ? [] : [link.a, link.b]));
    case "host":
      return [change.before, change.after].flatMap((host) =>
        host?.attachment.at === "port" ? [host.attachment.port] : [],
      );
    case "device":
      return leaves(change, ["bridging", "domain"]) ? [] : "all";
    case "segment":
      return leaves(change, ["vlan"]) ? [] : "all";
    case "vlan":
      return leaves(change, ["vid", "domain"]) ? [] : "all";
    default:
      return "all";
  }
}

/** The cables that a change is about: itself, or the one in a port. */
export function linksTouched(index: PlanIndex, change: Change): readonly string[] | "all" {
  if (change.kind === "link") return [change.id];
  if (change.kind === "port") return [index.linkAt(change.id)?.id ?? []].flat();
  return "all";
}

/** The devices at both ends of the cables of a port, and its own. */
const devicesAt = (index: PlanIndex, port: string): string[] =>
  [index.plan.port.get(port)?.device, index.peerOf(port)?.device].flatMap((device) => device ?? []);

/** The devices whose ports, cables or plugged-in things a change is about, neighbours included. */
export function devicesTouched(index: PlanIndex, change: Change): readonly string[] | "all" {
  const sides = [change.before, change.after];
  switch (change.kind) {
    case "device":
      return [
        change.id,
        ...(index.groups("portsByDevice").get(change.id) ?? []).flatMap(
          (port) => index.peerOf(port.id)?.device ?? [],
        ),
      ];
    case "port":
      return [
        ...devicesAt(index, change.id),
        ...sides.flatMap((port) =>
          port !== null && "device" in port && typeof port.device === "string" ? [port.device] : [],
        ),
      ];
    case "link":
      return sides.flatMap((link) =>
        link === null || !("a" in link) ? [] : [...devicesAt(index, link.a), ...devicesAt(index, link.b)],
      );
    case "host":
      return [change.before, change.after].flatMap((host) =>
        host?.attachment.at === "port" ? devicesAt(index, host.attachment.port) : [],
      );
    case "radio":
      return sides.flatMap((radio) =>
        radio !== null && "device" in radio && typeof radio.device === "string" ? [radio.device] : [],
      );
    default:
      return "all";
  }
}

/**
 * The hosts whose addresses a change may make right or wrong: itself, or all of a segment whose subnet or
 * scope changes.
 */
export function hostsTouched(index: PlanIndex, change: Change): readonly string[] {
  switch (change.kind) {
    case "host":
      return [change.id];
    case "segment":
      return index.hostsIn(change.id).map((host) => host.id);
    case "scope":
      return [change.before, change.after].flatMap((scope) =>
        scope === null ? [] : index.hostsIn(scope.segment).map((host) => host.id),
      );
    default:
      return [];
  }
}

/** The segments that a change is about: itself, or the one a host, a scope or a leg is or was in. */
export function segmentsTouched(_index: PlanIndex, change: Change): readonly string[] | "all" {
  switch (change.kind) {
    case "segment":
      return [change.id];
    case "host":
    case "scope":
    case "interface":
      return [change.before, change.after].flatMap((entity) =>
        entity === null || entity.segment === null ? [] : [entity.segment],
      );
    default:
      return "all";
  }
}
