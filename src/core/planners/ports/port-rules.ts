import { byNaturalText } from "../../kernel";
import type { Host, PlanIndex, Port } from "../../plan";
import { modeOf } from "../../fabric";
import { portCarries } from "../../forwarding";

/** A rule that picks ports on many devices at once. */
export type PortRule =
  | { readonly by: "hostKind"; readonly kind: Host["kind"] }
  | { readonly by: "segment"; readonly segment: string }
  | { readonly by: "unused" }
  | { readonly by: "undecided" }
  | { readonly by: "accessPoints" }
  | { readonly by: "uplinks" }
  | { readonly by: "powered" };

function matches(index: PlanIndex, port: Port, rule: PortRule): boolean {
  const hosts = () => index.groups("hostsByPort").get(port.id) ?? [];
  switch (rule.by) {
    case "hostKind":
      return hosts().some((host) => host.kind === rule.kind);
    case "segment":
      return hosts().some((host) => host.segment === rule.segment);
    case "unused":
      return index.linkAt(port.id) === undefined && hosts().length === 0 && port.note === "";
    case "undecided":
      return modeOf(port) === "undecided";
    case "accessPoints": {
      const peer = index.peerOf(port.id);
      return peer !== undefined && index.plan.device.get(peer.device)?.kind === "accessPoint";
    }
    case "uplinks": {
      const peer = index.peerOf(port.id);
      return (
        peer !== undefined &&
        portCarries(index).has(port.id) &&
        index.plan.device.get(peer.device)?.kind !== "accessPoint"
      );
    }
    case "powered":
      return port.poeMw > 0;
  }
}

/**
 * The ports that a rule picks, device by device in the printed order: ports of gear that knows VLANs, beside
 * access points' own and those with an interface of their own. `devices` limits it to some; null takes all.
 */
export function portsByRule(
  index: PlanIndex,
  rule: PortRule,
  devices: ReadonlySet<string> | null = null,
): Port[] {
  const owners = [...index.plan.device.values()].filter(
    (device) =>
      device.bridging === "vlan" &&
      device.kind !== "accessPoint" &&
      (devices === null || devices.has(device.id)),
  );
  return owners
    .sort((a, b) => byNaturalText(a.name, b.name))
    .flatMap((device) =>
      index
        .portsOf(device.id)
        .filter((port) => !index.groups("interfacesByPort").has(port.id) && matches(index, port, rule)),
    );
}
