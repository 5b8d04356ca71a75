import { nameOf } from "../../plan";
import { check, type Found } from "../check";
import { READS } from "./parts";

interface Timers {
  readonly device: string;
  readonly hello: number;
  readonly maxAge: number;
  readonly delay: number;
}

/** Twice the forward delay less a second, and twice the hello time and a second (IEEE 802.1Q section 13.25). */
const most = (delay: number): number => 2 * (delay - 1);
const least = (hello: number): number => 2 * (hello + 1);

export const treeTimersUnfit = check<Timers>({
  code: "tree-timers-unfit",
  severity: "stop",
  family: "guards",
  title: "Timers of a spanning tree do not fit one another",
  why:
    "Twice the forward delay less a second must be at least the maximum age, and that at least twice the " +
    "hello time and a second (IEEE 802.1Q section 13.25): else old news outlives the new, and a loop opens.",
  reads: READS,
  find: (index) =>
    [...index.plan.device.values()].flatMap((device): Found<Timers>[] => {
      const { kind, helloSeconds: hello, maxAge, forwardDelay: delay } = device.tree;
      const isFit = most(delay) >= maxAge && maxAge >= least(hello);
      return kind === "none" || device.bridging !== "vlan" || isFit
        ? []
        : [
            {
              subjects: [{ kind: "device", id: device.id }],
              data: { device: device.id, hello, maxAge, delay },
            },
          ];
    }),
  describe: ({ device, hello, maxAge, delay }, index) =>
    `${nameOf(index, "device", device)} has a maximum age of ${maxAge} s: ` +
    (most(delay) < maxAge
      ? `with a forward delay of ${delay} s it may be ${most(delay)} s at most.`
      : `with a hello time of ${hello} s it has to be ${least(hello)} s at least.`),
  repairs: ({ device }, index) => [
    {
      label: `Give ${nameOf(index, "device", device)} the timers of the standard: 2, 20 and 15 s`,
      planner: "set-tree-timer",
      args: { device, timers: "usual" },
      edit: (edits) =>
        edits.patch("device", device, {
          tree: { ...edits.need("device", device).tree, helloSeconds: 2, maxAge: 20, forwardDelay: 15 },
        }),
    },
  ],
});
