import type { PlanIndex, ProbeGoal, Service } from "@/core/plan";
import { managementAddress, type Plug } from "@/core/probe";
import type { Family } from "@/core/address";
import type { Choice } from "../../kit/Combo";

/** A goal as the word that its choice goes by. */
export const goalKey = (goal: ProbeGoal): string => {
  switch (goal.to) {
    case "host":
      return `host ${goal.host}`;
    case "device":
      return `device ${goal.device}`;
    case "forward":
      return `forward ${goal.forward}`;
    case "port":
      return `port ${goal.port}`;
    default:
      return goal.to;
  }
};

/** The goal that a choice's word stands for; an address where it stands for none. */
export function goalOfKey(key: string, service: Service | null): ProbeGoal {
  const [kind, id = ""] = key.split(" ");
  switch (kind) {
    case "host":
      return { to: "host", host: id, service };
    case "device":
      return { to: "device", device: id, service };
    case "forward":
      return { to: "forward", forward: id };
    case "port":
      return { to: "port", port: id, service };
    case "internet":
      return { to: "internet", service };
    case "gateway":
      return { to: "gateway", service };
    default:
      return { to: "address" };
  }
}

/** Everything that can be asked for on a site. */
export function goalChoices(index: PlanIndex, family: Family, places: readonly Plug[]): Choice[] {
  return [
    { value: "address", label: "an address" },
    { value: "internet", label: "the internet" },
    { value: "gateway", label: "the gateway’s own pages" },
    ...[...index.plan.host.values()].map((host) => ({
      value: `host ${host.id}`,
      label: host.name,
      detail: host.place,
      group: "a device",
    })),
    ...[...index.plan.device.values()]
      .filter((device) => managementAddress(index, device, family) !== undefined)
      .map((device) => ({
        value: `device ${device.id}`,
        label: `the pages of ${device.name}`,
        detail: device.place,
        group: "gear",
      })),
    ...[...index.plan.forward.values()].map((forward) => ({
      value: `forward ${forward.id}`,
      label: `the forward ${forward.name}`,
      group: "from outside in",
    })),
    ...places.flatMap(({ from, label }) =>
      from.at === "port"
        ? [{ value: `port ${from.port}`, label: `another laptop at ${label}`, group: "another laptop" }]
        : [],
    ),
  ];
}
