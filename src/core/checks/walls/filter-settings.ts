import { isFilter, isGateway, keepsState, nameOf, type Device, type PlanIndex } from "../../plan";
import type { Repair } from "../../repairs";
import { allLinesOf } from "../../routing";
import { PLANNED_LISTS } from "../../walls";
import { counted } from "../../repairs";
import { check, type Found } from "../check";

interface OnDevice {
  readonly device: string;
}

const foundOn = ({ id }: Device): Found<OnDevice> => ({
  subjects: [{ kind: "device", id }],
  data: { device: id },
});

const setting = (device: string, label: string, fields: Partial<Device["filter"]>): Repair => ({
  label,
  planner: "set-filter",
  args: { device, fields },
  edit: (edits) =>
    edits.patch("device", device, { filter: { ...edits.need("device", device).filter, ...fields } }),
});

export const hostsOpenPorts = check<OnDevice>({
  code: "hosts-open-ports",
  severity: "warn",
  family: "gateway",
  title: "Hosts may open ports to the internet for themselves",
  why:
    "Any host inside, one with bad software on it too, can have itself reached from outside " +
    "(RFC 6887): no wall and no list says so any more.",
  reads: ["device", "interface", "line"],
  find: (index) =>
    [...index.plan.device.values()]
      .filter(
        (device) => device.filter.hostsOpen && isGateway(device) && allLinesOf(index, device.id).length > 0,
      )
      .map(foundOn),
  describe: ({ device }, index) =>
    `${nameOf(index, "device", device)} lets hosts open ports on it for themselves, ` +
    "so that what is reached from outside is not what the plan says.",
  repairs: ({ device }, index) => [
    setting(device, `Let nobody open ports on ${nameOf(index, "device", device)}`, { hostsOpen: false }),
  ],
});

interface Forgetting extends OnDevice {
  readonly back: number;
}

/** How many rules of a device's needed list only let answers back. */
function rulesBack(index: PlanIndex, { id }: Device): number {
  const planned = index.derived(PLANNED_LISTS).get(id);
  return (planned?.rules ?? []).filter(({ serves }) => serves.some(({ answers }) => answers)).length;
}

export const listWithoutMemory = check<Forgetting>({
  code: "list-without-memory",
  severity: "note",
  family: "walls",
  title: "A list that remembers nothing lets back more than answers",
  why:
    "A switch looks at each packet for itself: the rule that lets answers back lets in whatever is sent " +
    "to the ports from which others ask (1024 and up). A gateway between the two remembers who asked.",
  reads: ["device", ...PLANNED_LISTS.reads],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device): Found<Forgetting>[] => {
      if (!isFilter(device) || keepsState(device) || device.filter.list !== "planned") return [];
      const back = rulesBack(index, device);
      return back === 0
        ? []
        : [{ subjects: [{ kind: "device", id: device.id }], data: { device: device.id, back } }];
    }),
  describe: ({ device, back }, index) =>
    `${nameOf(index, "device", device)} remembers nothing of what it let through: ` +
    `${counted(back, "rule lets", "rules let")} answers back, and whoever answers ` +
    "may also send there unasked, to ports from 1024 on.",
  repairs: () => [],
});
