import { byNaturalText, must } from "../kernel";
import type { Device, Gear, PlanIndex, Room } from "../plan";
import { DEVICE_MODELS, type DeviceModel, catalogueOf, portPowerMw } from "../catalogue";
import { mainDomain } from "../planners";
import { roomsInOrder } from "./groups";
import { needsOf, type Need } from "./read-needs";
import { schoolOf } from "./school";

/** What one place (a cabinet, or the site where it has none) needs of switches. */
export interface PlaceNeed {
  /** The cabinet; null for a site without one. */
  readonly cabinet: Room | null;
  /** Ports for sockets and cabinet devices, growth included. */
  readonly ports: number;
  /** Ports for what the survey names now, without growth. */
  readonly now: number;
  /** Ports among them that have to give power. */
  readonly powered: number;
  readonly poeMw: number;
  /** Switches of the plan that stand there. */
  readonly existing: readonly Device[];
  /** Switches found there that stay and are no devices of the plan yet. */
  readonly kept: readonly Gear[];
  /** What has to come beside these, the largest first. */
  readonly missing: readonly DeviceModel[];
}

/** Those of them that have an address of their own: gear that knows no VLANs has none. */
export const addressedCount = ({ existing, kept, missing }: PlaceNeed): number =>
  [...existing, ...missing].filter(({ bridging }) => bridging === "vlan").length +
  kept.filter((gear) => modelOf(gear)?.bridging === "vlan").length;

const portsOf = (model: DeviceModel): number =>
  model.runs
    .filter((run) => run.prefix === "" && run.medium === "copper")
    .reduce((total, run) => total + run.count, 0);
const gives = (model: DeviceModel): boolean => model.poeBudgetMw > 0;
const switchModels = (bridging: DeviceModel["bridging"]) =>
  DEVICE_MODELS.filter((model) => model.kind === "switch" && model.bridging === bridging).sort(
    (a, b) => portsOf(a) - portsOf(b) || a.poeBudgetMw - b.poeBudgetMw,
  );
const MANAGED = switchModels("vlan");
/** Where routers separate, gear that knows no VLANs does; none of it gives power. */
const PLAIN = switchModels("plain");

/**
 * The fewest switches that have the ports and the power: the largest as long as one is not enough, then the
 * smallest that is.
 */
export function switchesFor(ports: number, powered: number, poeMw: number, plain = false): DeviceModel[] {
  const all = plain && powered === 0 && poeMw === 0 ? PLAIN : MANAGED;
  const chosen: DeviceModel[] = [];
  let [left, leftPowered, leftMw] = [ports, powered, poeMw];
  while (left > 0 || leftPowered > 0 || leftMw > 0) {
    const fits = (model: DeviceModel) =>
      portsOf(model) >= left &&
      ((leftPowered === 0 && leftMw === 0) ||
        (gives(model) && portsOf(model) >= leftPowered && model.poeBudgetMw >= leftMw));
    const usable = leftPowered > 0 || leftMw > 0 ? all.filter(gives) : all;
    const model = all.find(fits) ?? must(usable.at(-1), "a managed switch");
    chosen.push(model);
    left -= portsOf(model);
    if (!gives(model)) continue;
    leftPowered = Math.max(0, leftPowered - portsOf(model));
    leftMw = Math.max(0, leftMw - model.poeBudgetMw);
    left = Math.max(left, leftPowered);
  }
  return chosen;
}

export const isSafety = (need: Need): boolean => need.kind.purpose === "safety";
const wiredCount = (need: Need): number =>
  need.wireless || need.kind.role === "crowd" || need.kind.role === "switch" ? 0 : need.count;

/** The cabinet of a room: the one it names, itself when it is one, else the first there is. */
export function cabinetOf(rooms: readonly Room[], room: Room): Room | null {
  if (room.kind === "cabinet") return room;
  return (
    rooms.find((cabinet) => cabinet.id === room.cabinet && cabinet.kind === "cabinet") ??
    rooms.find((room) => room.kind === "cabinet") ??
    null
  );
}

/** Gear that stays and is like a managed switch of the catalogue. */
const keptSwitches = (index: PlanIndex, cabinet: Room | null): Gear[] =>
  [...index.plan.gear.values()].filter(
    (gear) =>
      gear.kind === "switch" &&
      gear.fate === "keep" &&
      gear.device === null &&
      gear.room === (cabinet?.id ?? null) &&
      modelOf(gear) !== undefined,
  );
export const modelOf = (gear: Gear): DeviceModel | undefined =>
  DEVICE_MODELS.find((model) => model.id === gear.model);

interface Wanted {
  readonly cabinet: Room | null;
  ports: number;
  now: number;
  powered: number;
  poeMw: number;
  /** Switches that a line of the survey asks for by number. */
  stated: number;
}

/** What the needs of the rooms come to at each cabinet, growth included. */
function wantedByPlace(
  index: PlanIndex,
  only: (need: Need, room: Room) => boolean,
): ReadonlyMap<string, Wanted> {
  const rooms = roomsInOrder(index);
  const catalogue = catalogueOf(index.plan);
  const { growth } = index.plan.site.conventions;
  const places = new Map<string, Wanted>();
  for (const room of rooms) {
    const cabinet = cabinetOf(rooms, room);
    const key = cabinet?.id ?? "";
    const place = places.get(key) ?? { cabinet, ports: 0, now: 0, powered: 0, poeMw: 0, stated: 0 };
    places.set(key, place);
    for (const need of needsOf(catalogue, room.needs)) {
      if (!only(need, room)) continue;
      const count = wiredCount(need);
      place.now += count;
      place.ports += (count * (100 + (need.growth ?? growth))) / 100;
      if (need.kind.role === "switch") place.stated += need.count;
      if (need.poeClass === null) continue;
      place.powered += count;
      place.poeMw += count * portPowerMw(need.poeClass);
    }
  }
  return places;
}

/**
 * Place by place, what ports and power the survey comes to and which switches have them. Safety networks are
 * counted apart.
 */
export function neededGear(
  index: PlanIndex,
  domain: string | null = mainDomain(index.plan),
  only: (need: Need, room: Room) => boolean = (need) => !isSafety(need),
): PlaceNeed[] {
  const plain = schoolOf(index).school === "routers";
  const places = wantedByPlace(index, only);
  return [...places.values()]
    .filter((place) => place.ports > 0)
    .map(({ cabinet, ports, now, powered, poeMw, stated }) => {
      const kept = keptSwitches(index, cabinet).filter((gear) => plain || modelOf(gear)?.bridging === "vlan");
      const existing = switchesAt(index, cabinet).filter(
        (device) =>
          (plain || device.bridging === "vlan") && (device.domain === null || device.domain === domain),
      );
      const there = [
        ...existing.map((device) => capacityOf(index, device)),
        ...kept.flatMap((gear) => {
          const model = modelOf(gear);
          return model === undefined ? [] : [capacityOfModel(model)];
        }),
      ];
      // One port more for the way to the next switch or the gateway, where the fibre ports are not used for it.
      const wanted = Math.ceil(ports - 1e-9) + 1;
      // Beside gear without power the way on takes one of the powered ports.
      const has = (of: (capacity: Capacity) => number) =>
        there.reduce((total, capacity) => total + of(capacity), 0);
      const missing = switchesFor(
        Math.max(0, wanted - has((capacity) => capacity.ports)),
        Math.max(0, (plain && powered > 0 ? powered + 1 : powered) - has((capacity) => capacity.powered)),
        Math.max(0, poeMw - has((capacity) => capacity.poeMw)),
        plain,
      );
      // A line that says how many switches there are is met with the smallest that are still missing.
      while (there.length + missing.length < stated)
        missing.push(must((plain ? PLAIN : MANAGED)[0], "a switch"));
      return { cabinet, ports: wanted, now, powered, poeMw, existing, kept, missing };
    });
}

interface Capacity {
  readonly ports: number;
  readonly powered: number;
  readonly poeMw: number;
}
const capacityOfModel = (model: DeviceModel): Capacity => ({
  ports: portsOf(model),
  powered: gives(model) ? portsOf(model) : 0,
  poeMw: model.poeBudgetMw,
});
function capacityOf(index: PlanIndex, device: Device): Capacity {
  const ports = index.portsOf(device.id).filter((port) => port.medium === "copper");
  return {
    ports: ports.length,
    powered: ports.filter((port) => port.poeMw > 0).length,
    poeMw: device.poeBudgetMw,
  };
}

/** The plan's switches at a place, in the order of their names. */
export const switchesAt = (index: PlanIndex, cabinet: Room | null): Device[] =>
  [...index.plan.device.values()]
    .filter(
      (device) =>
        device.kind === "switch" &&
        (cabinet === null ? device.place === "" : device.place.toLowerCase() === cabinet.name.toLowerCase()),
    )
    .sort((a, b) => byNaturalText(a.name, b.name) || (a.id < b.id ? -1 : 1));
