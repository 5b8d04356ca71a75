import { putInto } from "../kernel";
import type { Placed, Gate, Served } from "./look";
import type { Services } from "./services";
import type { Spot, State } from "./state";

/** By gear, the hosts (as places in a list) whose lot hangs on it; and those that hang on too much to say. */
export interface Concerned {
  readonly byDevice: ReadonlyMap<string, readonly number[]>;
  readonly always: readonly number[];
}

/** Who is concerned when gear fails or is cut off: who hangs on it, or whose gateway, servers or way out. */
export function concernedBy(state: State, hosts: readonly Placed[], { services }: Served): Concerned {
  const byDevice = new Map<string, number[]>();
  const always: number[] = [];
  const gearOf = (spot: Spot | null): string[] => {
    const device = spot === null ? undefined : state.fabric.devices[spot.device];
    return device === undefined ? [] : [device.id];
  };
  const ofGate = ({ gateway, gatewaySpot, out }: Gate): string[] => [
    ...(gateway === null ? [] : [gateway]),
    ...gearOf(gatewaySpot),
    ...(out?.way.hops.map(({ device }) => device.id) ?? []),
    ...(out?.joints.flat().flatMap(gearOf) ?? []),
  ];
  const ofServices = (own: Services): string[] => [
    ...ofGate(own),
    ...own.servers.flatMap(({ device, spot }) => [...(device === null ? [] : [device]), ...gearOf(spot)]),
  ];
  const bySegment = new Map([...services].map(([id, own]) => [id, ofServices(own)]));
  for (const [i, { on, spot, segment, entered }] of hosts.entries()) {
    const own = segment === null ? undefined : services.get(segment.id);
    // A relay's question may take any way over any router.
    if (own?.servers.some(({ asks }) => asks !== null) === true) always.push(i);
    const gear = new Set([
      ...(on === null ? [] : [on]),
      ...gearOf(spot),
      ...(segment === null ? [] : (bySegment.get(segment.id) ?? [])),
      ...(entered === undefined ? [] : ofGate(entered)),
    ]);
    for (const device of gear) putInto(byDevice, device, i);
  }
  return { byDevice, always };
}

/** The hosts that some gear concerns, each once, in the order of the list. */
export function concerned({ byDevice, always }: Concerned, devices: Iterable<string>): number[] {
  const found = new Set(always);
  for (const device of devices) for (const i of byDevice.get(device) ?? []) found.add(i);
  return [...found].sort((a, b) => a - b);
}

/** All of them, where nothing can be said beforehand. */
export const everybody = (hosts: readonly Placed[]): number[] => hosts.map((_, i) => i);
