import { must } from "../kernel";
import {
  BLANK_TREE,
  type Device,
  type Domain,
  type Interface,
  type Lag,
  type Plan,
  type PlanIndex,
  type Port,
  type Segment,
  type Vlan,
  type Zone,
} from "../plan";
import { aDevice, aLink, aPort, planWith, testId } from "./build-plan";
import { v } from "./written";

/** Gear, each a letter, and cables between its ports: "A1-B2" goes from A's port 1 to B's port 2. */
export interface CabledGear {
  readonly gear: Readonly<Record<string, Partial<Omit<Device, "tree">> & { tree?: Partial<Device["tree"]> }>>;
  readonly cables: readonly string[];
  /** What is unlike the others at some ports, as at "A1". */
  readonly ports?: Readonly<Record<string, Partial<Port>>>;
  /** The VLANs that every port carries tagged. */
  readonly tagged?: readonly number[];
  readonly lag?: readonly Lag[];
  readonly interface?: readonly Interface[];
  readonly domain?: readonly Domain[];
  readonly vlan?: readonly Vlan[];
  readonly zone?: readonly Zone[];
  readonly segment?: readonly Segment[];
}

export const letterId = (letter: string): string => testId("device", letter);
export const endId = (end: string): string => testId("port", `${letterId(end.slice(0, 1))} ${end.slice(1)}`);

/** The plan of it; ports are there as far as a cable or `ports` names them. */
export function cabledGear({ gear, cables, ports = {}, tagged = [10], ...more }: CabledGear): Plan {
  const ends = cables.map((cable) => cable.split("-"));
  const named = [...new Set([...ends.flat(), ...Object.keys(ports)])];
  return planWith({
    ...more,
    device: Object.entries(gear).map(([name, { tree, ...fields }]) =>
      aDevice({ name, ...fields, tree: { ...BLANK_TREE, kind: "rapid", ...tree } }),
    ),
    port: named.map((end) =>
      aPort({
        device: letterId(end.slice(0, 1)),
        label: end.slice(1),
        tagged: tagged.map(v),
        ...ports[end],
      }),
    ),
    link: ends.map(([a, b]) => aLink({ a: endId(must(a, "a near end")), b: endId(must(b, "a far end")) })),
  });
}

/** One of its pieces by its letter. */
export const pieceOf = (index: PlanIndex, letter: string): Device =>
  must(index.plan.device.get(letterId(letter)), letter);
