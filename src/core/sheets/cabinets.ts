import { byNaturalText, putInto } from "../kernel";
import type { Device, PlanIndex } from "../plan";
import { powerBudget, type PowerBudget } from "../power";
import { devicesInOrder } from "./port-sheet";

/**
 * A device in a cabinet: the height units it fills, counted from the floor, and what its ports have to give.
 */
export interface Racked {
  readonly device: Device;
  readonly from: number;
  readonly to: number;
  readonly power: PowerBudget;
}
export interface Cabinet {
  readonly place: string;
  /**
   * How high it is: as entered in the survey, else as high as what is in it; 0 for a place without any gear
   * at a height unit.
   */
  readonly units: number;
  /** From the top down. */
  readonly racked: readonly Racked[];
  /** Gear of the place that stands at no height unit. */
  readonly loose: readonly { readonly device: Device; readonly power: PowerBudget }[];
  /** What feeds the gear here, each with those that would go dark with it: on it and on nothing else. */
  readonly feeds: readonly {
    readonly feed: string;
    readonly devices: readonly Device[];
    readonly dark: readonly Device[];
  }[];
}

function feedsOf(devices: readonly Device[]): Cabinet["feeds"] {
  const names = [...new Set(devices.flatMap((device) => [device.feed, device.backupFeed]))]
    .filter((feed) => feed !== "")
    .sort(byNaturalText);
  return names.map((feed) => {
    const own = devices.filter((device) => device.feed === feed || device.backupFeed === feed);
    return {
      feed,
      devices: own,
      dark: own.filter(
        (device) => device.backupFeed === "" || device.feed === "" || device.feed === device.backupFeed,
      ),
    };
  });
}

/** The places with gear, cabinets first, each with what stands where in it. */
export function cabinets(index: PlanIndex): Cabinet[] {
  const byPlace = new Map<string, Device[]>();
  for (const device of devicesInOrder(index)) putInto(byPlace, device.place, device);
  const found = [...byPlace].map(([place, devices]): Cabinet => {
    const racked = devices.flatMap((device): Racked[] =>
      device.rackUnit === null
        ? []
        : [
            {
              device,
              from: device.rackUnit,
              to: device.rackUnit + Math.max(1, device.heightUnits) - 1,
              power: powerBudget(index, device),
            },
          ],
    );
    const highest = Math.max(0, ...racked.map(({ to }) => to));
    return {
      place,
      units: highest === 0 ? 0 : Math.max(highest, index.roomAt(place)?.heightUnits ?? 0),
      racked: racked.sort((a, b) => b.from - a.from),
      loose: devices
        .filter((device) => device.rackUnit === null)
        .map((device) => ({ device, power: powerBudget(index, device) })),
      feeds: feedsOf(devices),
    };
  });
  return found.sort((a, b) => Number(b.units > 0) - Number(a.units > 0) || byNaturalText(a.place, b.place));
}

/**
 * The lowest height unit with room for so many of them; null when the cabinet, as high as it is said to be,
 * has none.
 */
export function freeUnit(cabinet: Cabinet, heightUnits: number, units: number): number | null {
  const height = Math.max(1, heightUnits);
  for (let from = 1; from + height - 1 <= units; from += 1) {
    if (cabinet.racked.every((racked) => racked.to < from || racked.from > from + height - 1)) return from;
  }
  return null;
}
