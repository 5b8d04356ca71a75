import type { Device, PlanIndex, Wall } from "../plan";
import { wallRulesAt, type FilterRule, type WallRule } from "../policy";
import { merged, packetsIn, spansOf, type Wish } from "../rules";
import { coarsened, type CoarseUniverse } from "./coarse";
import { ontoNetworks, segmentsToldApart } from "./onto-networks";
import { universeAt } from "./universe-at";

/** What a rule is there for: a wall's door, or something that has to work for everyone. */
export interface Purpose {
  readonly wall: Wall | null;
  readonly why: string;
  /** Whether it only lets answers back, at a filter that remembers nothing. */
  readonly answers: boolean;
}

/** What is intended at a device, over the packets that can meet it. */
export interface IntentAt {
  readonly device: Device;
  /** The packets that can meet it; segments of a zone that nothing tells apart are one network there. */
  readonly universe: CoarseUniverse;
  /** How many packets that are. */
  readonly packets: bigint;
  /** What shall pass, each wall for itself. */
  readonly wishes: readonly Wish<Purpose>[];
}

/** The same purpose is one value, so that wishes that are joined name it once. */
class Purposes {
  readonly #known = new Map<string, Purpose>();

  of({ wall, why, answers = false }: WallRule): Purpose {
    const key = `${wall === null ? why : wall.id} ${answers}`;
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const said = wall === null ? why : wall.reason;
    const made = {
      wall,
      answers,
      why: answers ? ["answers", said].filter((part) => part !== "").join(": ") : said,
    };
    this.#known.set(key, made);
    return made;
  }
}

/** What the walls intend at a device; `beside` are other rules that shall be laid beside it. */
export function intentAt(index: PlanIndex, device: Device, beside: readonly FilterRule[]): IntentAt {
  const whole = universeAt(index, device);
  const { rules } = wallRulesAt(index, device);
  const universe = coarsened(index, whole, segmentsToldApart(index, [...rules, ...beside]));
  const onto = ontoNetworks(index, universe);
  const purposes = new Purposes();
  const wishes = rules.flatMap((rule) => {
    const [from, to] = [onto(rule.from), onto(rule.to)];
    const services = merged(rule.services.flatMap(({ protocol, ports }) => spansOf(protocol, ports)));
    return from.length === 0 || to.length === 0 ? [] : [{ from, to, services, serves: [purposes.of(rule)] }];
  });
  return { device, universe, packets: packetsIn(whole), wishes };
}
