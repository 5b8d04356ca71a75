import { containsAddress, formatAddress, formatPrefix, prefixesOverlap, prefixOf } from "../../address";
import { byNaturalText } from "../../kernel";
import {
  firstAddressOf,
  leafletFor,
  nameOf,
  type FirstAddress,
  type PlanIndex,
  type Segment,
} from "../../plan";
import { nameOnDevice } from "../../planners";
import { listed, type Repair } from "../../repairs";
import { check, type Found } from "../check";

interface Meets {
  readonly devices: readonly string[];
  readonly segment: string;
}

/** Segments whose subnet holds a first address, or lies in the subnet of that. */
function met(index: PlanIndex, { address, length }: FirstAddress): Segment[] {
  const own = length === null ? null : prefixOf(address, length);
  return [...index.plan.segment.values()].filter(({ prefixes4 }) =>
    prefixes4.some((prefix) =>
      own === null ? containsAddress(prefix, address) : prefixesOverlap(prefix, own),
    ),
  );
}

/** Devices that come with one first address and do not keep it, by that address. */
function comers(index: PlanIndex): Map<number, { readonly first: FirstAddress; readonly devices: string[] }> {
  const found = new Map<number, { readonly first: FirstAddress; readonly devices: string[] }>();
  for (const device of index.plan.device.values()) {
    const first = firstAddressOf(index, device);
    if (first === null) continue;
    if (index.interfacesOf(device.id).some(({ addresses4 }) => addresses4.includes(first.address))) continue;
    const known = found.get(first.address) ?? { first, devices: [] };
    known.devices.push(device.id);
    found.set(first.address, known);
  }
  return found;
}

export const firstAddressMet = check<Meets>({
  code: "first-address-met",
  severity: "warn",
  family: "addresses",
  title: "New gear comes with an address of a planned subnet",
  why:
    "Plugged in as it comes out of its box it answers beside what is planned there, may take somebody's " +
    "address, and a laptop between the two networks can't tell which is which.",
  reads: ["leaflet", "gear", "device", "segment", "interface"],
  find: (index): Found<Meets>[] =>
    [...comers(index).values()].flatMap(({ first, devices }) =>
      met(index, first).map((segment) => ({
        subjects: [
          { kind: "segment" as const, id: segment.id },
          ...devices.map((id) => ({ kind: "device" as const, id })),
        ],
        data: { devices, segment: segment.id },
      })),
    ),
  describe: ({ devices, segment }, index) => {
    const [own] = devices.flatMap((id) => index.plan.device.get(id) ?? []);
    const first = own === undefined ? null : firstAddressOf(index, own);
    const prefix = index.plan.segment.get(segment)?.prefixes4[0];
    const names = devices.map((id) => nameOf(index, "device", id)).sort(byNaturalText);
    const comes = names.length === 1 ? "comes" : "come";
    return (
      `${listed(names)} ${comes} out of the box as ` +
      `${first === null ? "nothing" : formatAddress(first.address)}, ` +
      `and ${nameOf(index, "segment", segment)} is planned as ` +
      `${prefix === undefined ? "nothing" : formatPrefix(prefix)}. Set it up away from the site's network, ` +
      "or give the segment another subnet."
    );
  },
  repairs: () => [],
});

interface Misfit {
  readonly device: string;
}

export const nameUnfitForModel = check<Misfit>({
  code: "name-unfit-for-model",
  severity: "warn",
  family: "hardware",
  title: "A name that the device itself does not take",
  why:
    "Its model allows other or fewer characters: on the device it stands otherwise than in the plan and on " +
    "labels.",
  reads: ["leaflet", "device"],
  find: (index): Found<Misfit>[] =>
    [...index.plan.device.values()].flatMap((device) =>
      nameOnDevice(index, device) === device.name
        ? []
        : [{ subjects: [{ kind: "device" as const, id: device.id }], data: { device: device.id } }],
    ),
  describe: ({ device }, index) => {
    const own = index.plan.device.get(device);
    const most = own === undefined ? null : (leafletFor(index, own)?.nameMost ?? null);
    const rule = own !== undefined && leafletFor(index, own)?.nameRule === "label";
    return (
      `"${nameOf(index, "device", device)}" does not go into a ${own?.model ?? "device"}: its name takes ` +
      `${rule ? "letters, digits and hyphens" : "any characters"}${most === null ? "" : `, at most ${most}`}.`
    );
  },
  repairs: ({ device }, index): Repair[] => {
    const own = index.plan.device.get(device);
    const name = own === undefined ? "" : nameOnDevice(index, own);
    const isTaken = [...index.plan.device.values()].some((other) => other.name === name);
    return name === "" || isTaken
      ? []
      : [
          {
            label: `Call it ${name}`,
            planner: "rename-device",
            args: { device },
            edit: (edits) => edits.patch("device", device, { name }),
          },
        ];
  },
});
