import { byNaturalText, byText, putInto } from "../../kernel";
import { nameOf, type Derived, type Device, type PlanEdits, type PlanIndex, type Room } from "../../plan";
import { addDevice, nextDeviceName, sharedNames } from "../../planners";
import { neededGear, switchesFor } from "../../survey";
import { check, localCheck, type Found } from "../check";
import { devicesTouched } from "../touched";
import { counted, listed } from "../../repairs";

interface OfDevice {
  readonly device: string;
}
const ofDevice = (device: Device) => [{ kind: "device" as const, id: device.id }];
const portsOf = (index: PlanIndex, device: string) => index.groups("portsByDevice").get(device) ?? [];
const vidsOn = (index: PlanIndex, device: string): Set<number> =>
  new Set(portsOf(index, device).flatMap((port) => [...port.untagged, ...port.tagged]));

export const tooManyVlans = localCheck<OfDevice, "device">({
  code: "too-many-vlans",
  severity: "stop",
  family: "ports",
  title: "A device has more VLANs than it can hold",
  why: "The last ones are refused, often without a word, and whoever is in them is cut off.",
  reads: ["device", "port"],
  of: "device",
  touched: devicesTouched,
  candidates: (index) =>
    [...index.plan.device.values()].filter((device) => device.abilities.maxVlans !== null),
  findAt: (index, device): Found<OfDevice>[] => {
    const { maxVlans } = device.abilities;
    return maxVlans === null || vidsOn(index, device.id).size <= maxVlans
      ? []
      : [{ subjects: ofDevice(device), data: { device: device.id } }];
  },
  describe: ({ device }, index) =>
    `${nameOf(index, "device", device)} has ports in ${vidsOn(index, device).size} ` +
    `VLANs and can hold ${index.plan.device.get(device)?.abilities.maxVlans ?? 0}.`,
  repairs: () => [],
});

interface Mixed extends OfDevice {
  readonly ports: readonly string[];
}

export const portsCannotMix = localCheck<Mixed, "device">({
  code: "ports-cannot-mix",
  severity: "stop",
  family: "ports",
  title: "A port is untagged and tagged at once on a device that can't do both",
  why: "Its software takes one or the other: the untagged VLAN is lost as soon as a tagged one is set.",
  reads: ["device", "port"],
  of: "device",
  touched: devicesTouched,
  candidates: (index) =>
    [...index.plan.device.values()].filter(
      (device) => !device.abilities.mixesTagged && device.bridging === "vlan",
    ),
  findAt: (index, device): Found<Mixed>[] => {
    if (device.abilities.mixesTagged || device.bridging !== "vlan") return [];
    const ports = portsOf(index, device.id)
      .filter((port) => port.untagged.length > 0 && port.tagged.length > 0)
      .map((port) => port.id)
      .sort(byText);
    return ports.length === 0
      ? []
      : [
          {
            subjects: [...ofDevice(device), ...ports.map((id) => ({ kind: "port" as const, id }))],
            data: { device: device.id, ports },
          },
        ];
  },
  describe: ({ device, ports }, index) =>
    `${nameOf(index, "device", device)} can't have a port untagged and tagged at once: ` +
    listed(ports.slice(0, 6).map((id) => `port ${index.plan.port.get(id)?.label ?? ""}`)) +
    `${ports.length > 6 ? " …" : ""}.`,
  repairs: ({ ports }, index) => [
    {
      label: "Tag the untagged VLAN too, at both ends",
      planner: "tag-all",
      args: { ports },
      edit: (edits) => {
        for (const id of ports.flatMap((port) => [port, index.peerOf(port)?.id ?? []].flat())) {
          const { untagged, tagged } = edits.need("port", id);
          if (untagged.length > 0)
            edits.patch("port", id, {
              pvid: null,
              untagged: [],
              tagged: [...new Set([...tagged, ...untagged])].sort((a, b) => a - b),
              admit: "tagged",
            });
        }
      },
    },
  ],
});

interface Clash {
  readonly device: string;
  readonly other: string | null;
  readonly place: string;
}

const unitsOf = (device: Device): readonly [number, number] | null =>
  device.rackUnit === null ? null : [device.rackUnit, device.rackUnit + Math.max(1, device.heightUnits) - 1];

/** The first run of free height units of a cabinet for a device, from below; null when there is none. */
function freeUnit(index: PlanIndex, device: Device, room: Room | undefined): number | null {
  const height = Math.max(1, device.heightUnits);
  const taken = new Set(
    [...index.plan.device.values()]
      .filter((other) => other.id !== device.id && other.place === device.place)
      .flatMap((other) => {
        const units = unitsOf(other);
        return units === null ? [] : Array.from({ length: units[1] - units[0] + 1 }, (_, i) => units[0] + i);
      }),
  );
  for (let unit = 1; unit + height - 1 <= (room?.heightUnits ?? 100); unit += 1) {
    if (Array.from({ length: height }, (_, i) => unit + i).every((place) => !taken.has(place))) return unit;
  }
  return null;
}

const unitsText = ([first, last]: readonly [number, number]) =>
  first === last ? `unit ${first}` : `units ${first} to ${last}`;

export const heightUnitsClash = check<Clash>({
  code: "height-units-clash",
  severity: "warn",
  family: "hardware",
  title: "Two devices fill one height unit, or one stands above the cabinet",
  why: "It shows when the gear is to be screwed in, and the cabinet is too small or the cables too short.",
  reads: ["device", "room"],
  find: (index): Found<Clash>[] => {
    const byPlace = new Map<string, Device[]>();
    for (const device of index.plan.device.values())
      if (device.rackUnit !== null && device.place !== "") putInto(byPlace, device.place, device);
    return [...byPlace].flatMap(([place, devices]) => {
      const ordered = devices.sort(
        (a, b) =>
          (a.rackUnit ?? 0) - (b.rackUnit ?? 0) || byNaturalText(a.name, b.name) || byText(a.id, b.id),
      );
      const most = index.roomAt(place)?.heightUnits ?? null;
      return ordered.flatMap((device, i): Found<Clash>[] => {
        const units = unitsOf(device);
        const below = ordered.slice(0, i).find((other) => (unitsOf(other)?.[1] ?? 0) >= (units?.[0] ?? 0));
        if (below !== undefined)
          return [
            {
              subjects: [...ofDevice(device), ...ofDevice(below)],
              data: { device: device.id, other: below.id, place },
            },
          ];
        return most !== null && (units?.[1] ?? 0) > most
          ? [{ subjects: ofDevice(device), data: { device: device.id, other: null, place } }]
          : [];
      });
    });
  },
  describe: ({ device, other, place }, index) => {
    const entity = index.plan.device.get(device);
    const units = entity === undefined ? null : unitsOf(entity);
    const span = units === null ? "" : unitsText(units);
    const height = index.roomAt(place)?.heightUnits;
    return other === null
      ? `${nameOf(index, "device", device)} fills ${span} of ` +
          `${place}, which has ${counted(height ?? 0, "unit", "units")}.`
      : `${nameOf(index, "device", device)} fills ${span} of ` +
          `${place}, where ${nameOf(index, "device", other)} is.`;
  },
  repairs: ({ device, place }, index) => {
    const entity = index.plan.device.get(device);
    const unit = entity === undefined ? null : freeUnit(index, entity, index.roomAt(place));
    return unit === null
      ? [
          {
            label: "Leave its height unit open",
            planner: "set-rack-unit",
            args: { device, unit: null },
            edit: (edits) => edits.patch("device", device, { rackUnit: null }),
          },
        ]
      : [
          {
            label: `Put it at unit ${unit}`,
            planner: "set-rack-unit",
            args: { device, unit },
            edit: (edits) => edits.patch("device", device, { rackUnit: unit }),
          },
        ];
  },
});

interface Shared extends OfDevice {
  readonly ports: readonly string[];
}

export const softwareNameTwice = localCheck<Shared, "device">({
  code: "software-name-twice",
  severity: "warn",
  family: "hardware",
  title: "Two ports of a device have one name in its software",
  why:
    "The number on the case and the name in the software are not " +
    "the same thing; with a wrong pair the wrong port is set.",
  reads: ["port", "device"],
  of: "device",
  touched: devicesTouched,
  findAt: (index, device): Found<Shared>[] => {
    const own = portsOf(index, device.id);
    if (new Set(own.map((port) => port.softwareName)).size === own.length) return [];
    const ports = sharedNames({ all: () => [...own] as never }, device.id)
      .map((port) => port.id)
      .sort(byText);
    return ports.length === 0
      ? []
      : [
          {
            subjects: [...ofDevice(device), ...ports.map((id) => ({ kind: "port" as const, id }))],
            data: { device: device.id, ports },
          },
        ];
  },
  describe: ({ device, ports }, index) => {
    const entities = ports
      .flatMap((id) => index.plan.port.get(id) ?? [])
      .sort((a, b) => a.position - b.position);
    return (
      `${nameOf(index, "device", device)}: ports ` +
      `${listed(entities.slice(0, 6).map((port) => port.label))} are ` +
      `${listed([...new Set(entities.map((port) => port.softwareName))].slice(0, 3))} in the software.`
    );
  },
  repairs: ({ ports }, index) => {
    const entities = ports
      .flatMap((id) => index.plan.port.get(id) ?? [])
      .sort((a, b) => a.position - b.position);
    const later = entities.filter((port, i) =>
      entities.slice(0, i).some((other) => other.softwareName === port.softwareName),
    );
    return [
      {
        label:
          "Leave the name of " +
          `${later.length === 1 ? `port ${later[0]?.label ?? ""}` : counted(later.length, "port", "ports")} ` +
          "open until somebody has looked",
        planner: "clear-software-names",
        args: { ports: later.map((port) => port.id) },
        edit: (edits) => {
          for (const port of later) edits.patch("port", port.id, { softwareName: "" });
        },
      },
    ];
  },
});

interface Short {
  readonly place: string;
  readonly needed: number;
  readonly there: number;
  readonly devices: readonly string[];
}

/**
 * Ports at each cabinet; it moves only when rooms, gear or the ports themselves do, not when a port is
 * painted.
 */
const SHORT: Derived<readonly Short[]> = {
  reads: ["room", "hostKind", "gear", "device", "port", "interface", "site"],
  make: (index) =>
    neededGear(index).flatMap(({ cabinet, now, existing }): Short[] => {
      const there = existing.reduce(
        (sum, device) => sum + portsOf(index, device.id).filter((port) => port.medium !== "fibre").length,
        0,
      );
      return existing.length === 0 || now <= there
        ? []
        : [
            {
              place: cabinet?.name ?? "",
              needed: now,
              there,
              devices: existing.map((device) => device.id).sort(byText),
            },
          ];
    }),
  follow: (previous, _index, changes) =>
    changes.every(
      (change) =>
        !SHORT.reads.includes(change.kind) ||
        (change.kind === "port" &&
          change.before !== null &&
          change.after !== null &&
          change.before.medium === change.after.medium &&
          change.before.device === change.after.device),
    )
      ? previous
      : null,
};

export const portsRunOut = check<Short>({
  code: "ports-run-out",
  severity: "warn",
  family: "hardware",
  title: "A cabinet needs more ports than its switches have",
  why: "Somebody brings a small switch then, which knows no VLANs and stands under a desk for years.",
  reads: SHORT.reads,
  find: (index) =>
    index.derived(SHORT).map((data): Found<Short> => ({
      subjects: data.devices.map((id) => ({ kind: "device" as const, id })),
      data,
    })),
  describe: ({ place, needed, there, devices }, index) =>
    `${place === "" ? "The site" : place} needs ${counted(needed, "port", "ports")} for ` +
    `what the survey names; ${listed(devices.map((id) => nameOf(index, "device", id)))} ` +
    `${devices.length === 1 ? "has" : "have"} ${there}.`,
  repairs: ({ place, needed, there }, index) =>
    switchesFor(needed - there, 0, 0)
      .slice(0, 1)
      .map((model) => ({
        label: `Add a ${model.model}${place === "" ? "" : ` in ${place}`}`,
        planner: "add-device",
        args: { model: model.id, place },
        edit: (edits: PlanEdits, ids: () => string) =>
          addDevice(
            { edits, index, ids },
            { model: model.id, name: nextDeviceName(edits, "switch", place), place },
          ),
      })),
});
