import type { PlanIndex } from "../plan";
import { hasRadios } from "../plan";
import type { Reader } from "./model";

interface Caution {
  readonly words: string;
  readonly holds: (index: PlanIndex) => boolean;
  readonly for: readonly Reader[];
}

const ALL: readonly Reader[] = ["installer", "customer", "electrician"];
const AT_WORK: readonly Reader[] = ["installer", "electrician"];
const always = (): boolean => true;
const some = <T>(all: ReadonlyMap<string, T>, is: (item: T) => boolean): boolean =>
  [...all.values()].some(is);

const CAUTIONS: readonly Caution[] = [
  {
    words:
      "Cabinets and mains: isolate first. Fixed wiring is done by licensed people under the local code, " +
      "which holds over everything that stands here.",
    holds: always,
    for: ALL,
  },
  {
    words:
      "Ladders, roofs and masts: by the rules for work at height. What leads outdoors is bonded and " +
      "protected from lightning and surges by the local code.",
    holds: ({ plan }) => some(plan.room, ({ kind }) => kind === "outdoor"),
    for: ALL,
  },
  {
    words: "Never look into a fibre or an optic.",
    holds: ({ plan }) => some(plan.link, ({ medium }) => medium === "fibre"),
    for: AT_WORK,
  },
  {
    words:
      "Power over the cable: certified gear only. Bundles of cables grow warm; their size and the cable's " +
      "rating limit how many may carry power side by side.",
    holds: ({ plan }) => some(plan.port, ({ poeMw }) => poeMw > 0),
    for: AT_WORK,
  },
  {
    words:
      "A change of the network can move or stop a machine: only with a permit, the consent of whoever " +
      "answers for " +
      "the process, in a safe window, with a way back. Emergency stop and safety functions never depend on " +
      "this plan.",
    holds: ({ plan }) => plan.site.kind === "industrial",
    for: ALL,
  },
  {
    words:
      "Telephones over the internet fail with the power or the line, and so do emergency calls from them. " +
      "Keep another way to call for help.",
    holds: ({ plan }) => some(plan.host, ({ kind }) => kind === "phone"),
    for: ["installer", "customer"],
  },
  {
    words: "Alarms and everything that protects life are installed and changed by certified trades.",
    holds: always,
    for: ALL,
  },
  {
    words: "Radio: channels, power and use outdoors by the local regulator.",
    holds: ({ plan }) => some(plan.device, hasRadios),
    for: ["installer", "customer"],
  },
  {
    words: "Cameras and logs of who did what fall under the law of privacy: say who is recorded, and why.",
    holds: ({ plan }) => some(plan.host, ({ kind }) => kind === "camera"),
    for: ["installer", "customer"],
  },
  {
    words: "Work only on networks that you are authorised to work on.",
    holds: always,
    for: ["installer"],
  },
];

/** The cautions that a site's own gear calls for, for a reader. */
export const cautionsOf = (index: PlanIndex, reader: Reader): string[] =>
  CAUTIONS.filter((caution) => caution.for.includes(reader) && caution.holds(index)).map(
    ({ words }) => words,
  );
