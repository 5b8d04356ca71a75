import { nameOf, type Device, type PlanIndex } from "../plan";
import { TREE } from "../spanning-tree";

/** One line about a tree's times: what happens, how long it takes, and why. */
export interface TreeTime {
  readonly what: string;
  readonly takes: string;
  readonly why: string;
}

/** How far a tree reaches from its root, and how far it may. */
export interface TreeReach {
  readonly root: Device;
  readonly furthest: string;
  readonly hops: number;
  readonly most: number;
}

/** How many BPDUs are missed before what they said is given up (IEEE 802.1Q section 13.25.2: 3 hello times). */
const MISSED = 3;

/** How far the common tree reaches from each of its roots (the root's timers hold for all). */
export function treeReach(index: PlanIndex): TreeReach[] {
  const { rootOf, hopsOf } = index.derived(TREE);
  const furthest = new Map<string, { id: string; hops: number }>();
  for (const [id, root] of rootOf) {
    const hops = hopsOf.get(id) ?? 0;
    const known = furthest.get(root.id);
    if (known === undefined || hops > known.hops) furthest.set(root.id, { id, hops });
  }
  return [...furthest].flatMap(([id, far]): TreeReach[] => {
    const root = index.plan.device.get(id);
    if (root === undefined || far.hops === 0) return [];
    const most = root.tree.kind === "multiple" ? root.tree.hops : root.tree.maxAge;
    return [{ root, furthest: nameOf(index, "device", far.id), hops: far.hops, most }];
  });
}

/** How long what happens to a tree takes, by the timers of its root. */
export function treeTimes({ tree }: Device): TreeTime[] {
  const { helloSeconds, forwardDelay, kind } = tree;
  const missed = MISSED * helloSeconds;
  const slow = 2 * forwardDelay;
  const handshake = "neighbours agree port by port (proposal and agreement), without waiting for timers";
  return [
    {
      what: "A cable is cut and both ends see it",
      takes: "well under a second",
      why: `The port that blocks forwards at once, and ${handshake}.`,
    },
    {
      what: "A cable is cut and the end does not see it (a converter between)",
      takes: `${missed} s`,
      why: `Three hello times of ${helloSeconds} s pass without a BPDU, then as above.`,
    },
    {
      what: "A port towards gear that does not answer: no spanning tree, or the old one",
      takes: `${slow} s`,
      why: `It listens and learns for the forward delay of ${forwardDelay} s each, since nobody agrees.`,
    },
    {
      what: "A device is plugged into a port that is not set as an edge",
      takes: `${slow} s`,
      why: "To the bridge it may be another bridge; many DHCP clients have given up by then.",
    },
    {
      what: "The kind of tree is changed on a switch",
      takes: kind === "perVlan" ? "not known" : `under a second to neighbours, ${slow} s to others`,
      why:
        kind === "perVlan"
          ? "One tree per VLAN is no standard: how it meets another kind is on the gear's leaflet, not here."
          : "All its ports begin anew: edge ports forward at once, the others as above.",
    },
  ];
}
