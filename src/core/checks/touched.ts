import type { Change, PlanIndex } from "../plan";

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
    case "device": {
      // A new name or place changes sentences, which are made when they are shown; only how it bridges
      // changes what is found.
      const { before, after } = change;
      return before !== null &&
        after !== null &&
        before.bridging === after.bridging &&
        before.domain === after.domain
        ? []
        : "all";
    }
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
