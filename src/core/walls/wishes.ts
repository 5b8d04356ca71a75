import { putInto } from "../kernel";
import type { PlanIndex, Wall } from "../plan";
import { INTERNET, networkOfSegment, WALL_RULES, type Network, type WallRule } from "../policy";
import { spansOf, type Side, type Wish } from "../rules";
import type { CoarseUniverse } from "./coarse";

/** What a rule is there for: a wall's door, or something that has to work for everyone. */
export interface Purpose {
  readonly wall: Wall | null;
  readonly why: string;
}

/** The networks of each zone that the device has a way to. */
function networksByZone({ plan }: PlanIndex, { stations }: CoarseUniverse): Map<Network, string[]> {
  const networks = new Map<Network, string[]>();
  for (const network of stations.keys()) {
    const segment = plan.segment.get(network);
    if (segment !== undefined) putInto(networks, networkOfSegment(segment), network);
  }
  return networks;
}

/** The same purpose is one value, so that wishes that are joined name it once. */
class Purposes {
  readonly #known = new Map<string, Purpose>();

  of({ wall, why }: WallRule): Purpose {
    const key = wall === null ? why : wall.id;
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const made = { wall, why: wall === null ? why : wall.reason };
    this.#known.set(key, made);
    return made;
  }
}

/** What the walls intend to let pass at a device, each wall for itself, over the segments that it has a way to. */
export function wishesAt(index: PlanIndex, universe: CoarseUniverse): Wish<Purpose>[] {
  const networks = networksByZone(index, universe);
  const purposes = new Purposes();
  const sides = (network: Network, prefixes: Side["prefixes"]): Side[] => {
    if (network === "router" || network === "any") return [{ network, prefixes }];
    const names = network === INTERNET ? [INTERNET] : (networks.get(network) ?? []);
    return names.filter((name) => universe.stations.has(name)).map((name) => ({ network: name, prefixes }));
  };
  return index.derived(WALL_RULES).rules.flatMap((rule) => {
    const [from, to] = [sides(rule.from, rule.src), sides(rule.to, rule.dst)];
    return from.length === 0 || to.length === 0
      ? []
      : [{ from, to, services: spansOf(rule.protocol, rule.ports), serves: [purposes.of(rule)] }];
  });
}
