import type { PlanIndex } from "./plan-index";
import { entityOf } from "./plan";
import { KIND_WORDS, type Kind } from "./schema/kinds";
import type { WallEnd } from "./schema/separation";

/** "Upper switch port 9": what a person calls an entity. An entity that is gone keeps its kind's word. */
// eslint-disable-next-line complexity -- one case for each kind, with words of its own
export function nameOf(index: PlanIndex, kind: Kind, id: string): string {
  const { plan } = index;
  switch (kind) {
    case "port": {
      const port = plan.port.get(id);
      return port === undefined
        ? "a removed port"
        : `${plan.device.get(port.device)?.name ?? "a device"} port ${port.label}`;
    }
    case "link": {
      const link = plan.link.get(id);
      return link === undefined
        ? "a removed cable"
        : `the cable ${nameOf(index, "port", link.a)} to ${nameOf(index, "port", link.b)}`;
    }
    case "vlan": {
      const vlan = plan.vlan.get(id);
      return vlan === undefined ? "a removed VLAN" : `${vlan.name} (${vlan.vid})`;
    }
    case "lag": {
      const lag = plan.lag.get(id);
      return lag === undefined
        ? "a removed LAG"
        : `${plan.device.get(lag.device)?.name ?? "a device"} ${lag.name}`;
    }
    case "radio": {
      const radio = plan.radio.get(id);
      const at = plan.device.get(radio?.device ?? "")?.name ?? "an access point";
      return radio === undefined ? "a removed radio" : `${at} ${radio.band} GHz`;
    }
    case "deviceVlan": {
      const own = plan.deviceVlan.get(id);
      return own === undefined
        ? "a removed VLAN of a device"
        : `VLAN ${own.vid} on ${plan.device.get(own.device)?.name ?? "a device"}`;
    }
    case "scope":
      return `the scope of ${plan.segment.get(plan.scope.get(id)?.segment ?? "")?.name ?? "a segment"}`;
    case "interface": {
      const leg = plan.interface.get(id);
      return leg === undefined
        ? "a removed interface"
        : `${plan.device.get(leg.device)?.name ?? "a device"} (${leg.name})`;
    }
    case "leaflet":
      return `the leaflet of ${plan.leaflet.get(id)?.model ?? "a model"}`;
    case "rule":
      return ruleName(index, id);
    case "wall": {
      const wall = plan.wall.get(id);
      return wall === undefined
        ? "a removed wall"
        : `the wall ${wallEndName(index, wall.from)} to ${wallEndName(index, wall.to)}`;
    }
    default: {
      const entity = entityOf(plan, kind, id);
      return entity !== undefined && "name" in entity ? entity.name : `a removed ${KIND_WORDS[kind]}`;
    }
  }
}

/** A rule has no name of its own: it is called by its number in its device's list. */
function ruleName(index: PlanIndex, id: string): string {
  const rule = index.plan.rule.get(id);
  if (rule === undefined) return "a removed rule";
  const number = index.rulesOf(rule.device).findIndex((rule) => rule.id === id) + 1;
  return `rule ${number} of ${index.plan.device.get(rule.device)?.name ?? "a device"}`;
}

export function wallEndName(index: PlanIndex, end: WallEnd): string {
  if (end.at === "zone") return index.plan.zone.get(end.zone)?.name ?? "a removed zone";
  return end.at === "internet" ? "Internet" : "Gateway";
}
