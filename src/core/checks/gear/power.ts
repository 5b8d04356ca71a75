import { byText } from "../../kernel";
import { nameOf, type PlanIndex, type Port } from "../../plan";
import { classOfDevice, classOfHost, loadAt, POE_READS, powerBudget, watts } from "../../power";
import { movePlug } from "../../planners";
import { localCheck, type Found } from "../check";
import { type Subject, counted } from "../../repairs";
import { devicesTouched, portsTouched } from "../touched";

interface NoPower {
  readonly port: string;
  readonly mw: number;
  readonly poeClass: number;
  readonly what: Subject;
}

/** A free port of the same device that gives the power, the nearest on the case. */
function poweredPort(index: PlanIndex, port: Port, mw: number): Port | undefined {
  return index
    .portsOf(port.device)
    .filter(
      (other) =>
        other.poeMw >= mw &&
        other.medium === port.medium &&
        other.note === "" &&
        index.linkAt(other.id) === undefined &&
        index.hostsAt(other.id).length === 0 &&
        !index.groups("interfacesByPort").has(other.id),
    )
    .sort(
      (a, b) =>
        Math.abs(a.position - port.position) - Math.abs(b.position - port.position) || byText(a.id, b.id),
    )[0];
}

export const noPowerOnPort = localCheck<NoPower, "port">({
  code: "no-power-on-port",
  severity: "stop",
  family: "hardware",
  title: "Something that is fed over its cable is in a port that gives too little power",
  why:
    "It stays dark, or starts and falls over as soon as it works hard. " +
    "The class decides, not what it draws at rest (IEEE 802.3 clause 145).",
  reads: POE_READS,
  of: "port",
  touched: (index, change) => {
    const around = (device: string): string[] =>
      (index.groups("portsByDevice").get(device) ?? []).flatMap((port) =>
        [port.id, index.peerOf(port.id)?.id ?? []].flat(),
      );
    // Which of several cables feeds a device depends on all of them.
    if (change.kind === "link")
      return [change.before, change.after].flatMap((link) =>
        link === null
          ? []
          : [link.a, link.b].flatMap((port) => [port, ...around(index.plan.port.get(port)?.device ?? "")]),
      );
    if (
      change.kind === "port" &&
      change.before !== null &&
      change.after !== null &&
      change.before.device !== change.after.device
    )
      return "all";
    if (change.kind !== "device") return portsTouched(index, change);
    const { before, after } = change;
    return before !== null && after !== null && before.poe === after.poe && before.kind === after.kind
      ? []
      : around(change.id);
  },
  candidates: (index) => {
    const ports = new Set<string>();
    for (const host of index.plan.host.values())
      if (host.attachment.at === "port" && classOfHost(index, host) !== null) ports.add(host.attachment.port);
    for (const device of index.plan.device.values()) {
      if (classOfDevice(device) !== null)
        for (const own of index.groups("portsByDevice").get(device.id) ?? []) {
          const peer = index.peerOf(own.id);
          if (peer !== undefined) ports.add(peer.id);
        }
    }
    const found: Port[] = [];
    for (const id of ports) {
      const port = index.plan.port.get(id);
      if (port !== undefined) found.push(port);
    }
    return found;
  },
  findAt: (index, port): Found<NoPower>[] => {
    const load = loadAt(index, port);
    return load === null || port.poeMw >= load.mw
      ? []
      : [
          {
            subjects: [
              { kind: "port", id: port.id },
              { kind: load.kind, id: load.id },
            ],
            data: {
              port: port.id,
              mw: load.mw,
              poeClass: load.poeClass,
              what: { kind: load.kind, id: load.id },
            },
          },
        ];
  },
  describe: ({ port, mw, poeClass, what }, index) => {
    const gives = index.plan.port.get(port)?.poeMw ?? 0;
    return (
      `${nameOf(index, what.kind, what.id)} takes power of class ${poeClass} (${watts(mw)} at the ` +
      `port), and ${nameOf(index, "port", port)} gives ${gives === 0 ? "none" : watts(gives)}.`
    );
  },
  repairs: ({ port, mw }, index) => {
    const entity = index.plan.port.get(port);
    const to = entity === undefined ? undefined : poweredPort(index, entity, mw);
    const load = entity === undefined ? null : loadAt(index, entity);
    return [
      ...(to === undefined
        ? []
        : [
            {
              label: `Plug it into port ${to.label}, which gives ${watts(to.poeMw)}`,
              planner: "move-plug",
              args: { from: port, to: to.id },
              edit: (edits: Parameters<typeof movePlug>[0]["edits"]) => movePlug({ edits }, port, to.id),
            },
          ]),
      ...(load === null
        ? []
        : [
            {
              label: "It has a supply of its own",
              planner: "set-poe",
              args: { [load.kind]: load.id },
              edit: (edits: Parameters<typeof movePlug>[0]["edits"]) =>
                edits.patch(load.kind, load.id, { poe: "none" }),
            },
          ]),
    ];
  },
});

interface Budget {
  readonly device: string;
  readonly neededMw: number;
  readonly budgetMw: number;
  readonly loads: number;
}

export const poeBudgetOverrun = localCheck<Budget, "device">({
  code: "poe-budget-overrun",
  severity: "stop",
  family: "hardware",
  title: "A switch has to give more power than it has",
  why:
    "The switch refuses what is plugged in last, or after a " +
    "power cut whatever comes up last: something else each time.",
  reads: POE_READS,
  of: "device",
  touched: devicesTouched,
  candidates: (index) => [...index.plan.device.values()].filter((device) => device.poeBudgetMw > 0),
  findAt: (index, device): Found<Budget>[] => {
    if (device.poeBudgetMw === 0) return [];
    const { neededMw, budgetMw, loads } = powerBudget(index, device);
    return neededMw <= budgetMw
      ? []
      : [
          {
            subjects: [
              { kind: "device", id: device.id },
              ...loads.map((load) => ({ kind: "port" as const, id: load.port.id })),
            ],
            data: { device: device.id, neededMw, budgetMw, loads: loads.length },
          },
        ];
  },
  describe: ({ device, neededMw, budgetMw, loads }, index) =>
    `${nameOf(index, "device", device)} sets ${watts(neededMw)} ` +
    `aside for ${counted(loads, "device", "devices")} and has ` +
    `${watts(budgetMw)}: ${watts(neededMw - budgetMw)} too little.`,
  repairs: () => [],
});

export const poeOneSupplyLost = localCheck<Budget, "device">({
  code: "poe-one-supply-lost",
  severity: "warn",
  family: "hardware",
  title: "With one supply lost a switch can't feed everything",
  why:
    "The second supply is there so that nothing falls over. With " +
    "too little left the switch drops the ports of lowest priority.",
  reads: POE_READS,
  of: "device",
  touched: devicesTouched,
  candidates: (index) => [...index.plan.device.values()].filter((device) => device.poeOneLostMw !== null),
  findAt: (index, device): Found<Budget>[] => {
    if (device.poeOneLostMw === null) return [];
    const { neededMw, loads } = powerBudget(index, device);
    return neededMw <= device.poeOneLostMw || neededMw > device.poeBudgetMw
      ? []
      : [
          {
            subjects: [{ kind: "device", id: device.id }],
            data: { device: device.id, neededMw, budgetMw: device.poeOneLostMw, loads: loads.length },
          },
        ];
  },
  describe: ({ device, neededMw, budgetMw, loads }, index) =>
    `${nameOf(index, "device", device)} sets ${watts(neededMw)} aside for ` +
    `${counted(loads, "device", "devices")}; with one supply lost it has ${watts(budgetMw)}.`,
  repairs: () => [],
});
