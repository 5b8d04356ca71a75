import {
  type PlanEdits,
  isFilter,
  isGateway,
  nameOf,
  wallEndName,
  type PlanIndex,
  type Segment,
  type Wall,
} from "../../plan";
import { serviceNames } from "../../policy";
import { forwardsPackets } from "../../routing";
import { FABRIC } from "../../fabric";
import { check, type Found } from "../check";
import type { Repair } from "../../repairs";
import { putInto } from "../../kernel";

interface Past {
  readonly segment: string;
  readonly device: string;
}

export const pastTheWalls = check<Past>({
  code: "past-the-walls",
  severity: "stop",
  family: "walls",
  title: "Gear that does not filter routes a segment past the walls",
  why:
    "What a layer-3 switch routes between its own segments " +
    "never meets the gateway, so no wall between them holds.",
  reads: [...FABRIC.reads, "segment", "zone", "wall", "vlan"],
  find: (index): Found<Past>[] => {
    const byDevice = new Map<string, Segment[]>();
    for (const segment of index.plan.segment.values()) {
      const device = index.plan.device.get(index.gatewayOf(segment)?.device ?? "");
      if (device !== undefined && !isFilter(device) && forwardsPackets(device))
        putInto(byDevice, device.id, segment);
    }
    return [...byDevice].flatMap(([device, segments]) =>
      new Set(segments.map((segment) => segment.zone)).size < 2
        ? []
        : segments
            .slice(1)
            .filter((segment) => segment.zone !== segments[0]?.zone)
            .map((segment): Found<Past> => ({
              subjects: [
                { kind: "segment", id: segment.id },
                { kind: "device", id: device },
              ],
              data: { segment: segment.id, device },
            })),
    );
  },
  describe: ({ segment, device }, index) => {
    const others = [...index.plan.segment.values()].filter(
      (other) =>
        other.id !== segment &&
        index.gatewayOf(other)?.device === device &&
        other.zone !== index.plan.segment.get(segment)?.zone,
    );
    return (
      `${nameOf(index, "device", device)} routes between ${nameOf(index, "segment", segment)} ` +
      `and ${others[0]?.name ?? "others"} without a filter: the walls between them do not hold.`
    );
  },
  repairs: ({ segment, device }, index): Repair[] => [
    ...index
      .interfacesIn(segment)
      .filter((leg) => {
        const other = index.plan.device.get(leg.device);
        return other !== undefined && isGateway(other) && isFilter(other);
      })
      .map((leg) => ({
        label: `Let ${nameOf(index, "device", leg.device)} be its gateway`,
        planner: "set-gateway",
        args: { segment, leg: leg.id },
        edit: (edits: PlanEdits) => void edits.patch("segment", segment, { gatewayInterface: leg.id }),
      })),
    ...byItsWalls(index, device),
  ],
});

/** Lets what routes and could filter do so; nothing for a box that has no list. */
function byItsWalls(index: PlanIndex, id: string): Repair[] {
  const device = index.plan.device.get(id);
  if (device === undefined || !isFilter({ ...device, filter: { ...device.filter, list: "planned" } }))
    return [];
  return [
    {
      label: `Let ${device.name} filter by what its walls need`,
      planner: "filter-by",
      args: { device: id, list: "planned" },
      edit: (edits) =>
        edits.patch("device", id, { filter: { ...edits.need("device", id).filter, list: "planned" } }),
    },
  ];
}

interface Open {
  readonly wall: string;
  readonly zone: string;
}

/** Groups that have no business with the gear: visitors, gadgets, cameras, terminals, suppliers. */
const STRANGERS: ReadonlySet<Segment["purpose"]> = new Set([
  "guests",
  "gadgets",
  "cameras",
  "cards",
  "vendor",
]);

/**
 * Doors from zones of such groups to where gear is managed: the gateway's pages, or a zone with the
 * management segment.
 */
function openDoors(index: PlanIndex): Wall[] {
  const segments = [...index.plan.segment.values()];
  const strangers = new Set(
    segments.filter((segment) => STRANGERS.has(segment.purpose)).map((segment) => segment.zone),
  );
  const managed = new Set(segments.filter((segment) => segment.management).map((segment) => segment.zone));
  return [...index.plan.wall.values()].filter(
    ({ from, to, door }) =>
      door !== "closed" &&
      from.at === "zone" &&
      strangers.has(from.zone) &&
      !managed.has(from.zone) &&
      (to.at === "gateway" || (to.at === "zone" && managed.has(to.zone))),
  );
}

function leadsTo(wall: Wall | undefined, index: PlanIndex): string {
  if (wall === undefined) return "";
  if (wall.to.at === "gateway") return "the gateway's own pages";
  return `${wallEndName(index, wall.to)}, where the gear is managed`;
}

export const managementReachable = check<Open>({
  code: "management-reachable",
  severity: "stop",
  family: "walls",
  title: "Gear can be managed from where it should not be",
  why: "Whoever reaches the pages of a switch or a gateway is one word away from every other network.",
  reads: ["wall", "zone", "segment"],
  find: (index): Found<Open>[] =>
    openDoors(index).map((wall) => ({
      subjects: [{ kind: "wall", id: wall.id }],
      data: { wall: wall.id, zone: wall.from.at === "zone" ? wall.from.zone : "" },
    })),
  describe: ({ wall, zone }, index) => {
    const own = index.plan.wall.get(wall);
    const services = own?.door === "services" ? ` for ${serviceNames(own.services).join(", ")}` : "";
    return `${nameOf(index, "zone", zone)} has a door${services} to ${leadsTo(own, index)}.`;
  },
  repairs: ({ wall }, index) => [
    {
      label: `Close ${nameOf(index, "wall", wall)}`,
      planner: "set-wall",
      args: { wall, door: "closed" },
      edit: (edits) => edits.remove("wall", wall),
    },
  ],
});
