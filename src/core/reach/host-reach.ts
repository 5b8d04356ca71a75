import { byNaturalText } from "../kernel";
import type { Host, PlanIndex, ProbeGoal } from "../plan";
import { asClient, managementAddress, probe } from "../probe";

/** One thing that a host may try to reach, and what comes of it. */
export interface HostReach {
  readonly group: "segment" | "pages" | "outside";
  readonly name: string;
  readonly goal: ProbeGoal;
  readonly passes: boolean;
  readonly why: string;
}

/**
 * From one host to everything, by probes: a host of each segment, the pages of each device, the internet and
 * the gateway. "Anything" stands for the first service that a door is open for.
 */
export function reachOfHost(index: PlanIndex, host: Host): HostReach[] {
  const nobody = () => "";
  const ask = (group: HostReach["group"], name: string, goal: ProbeGoal): HostReach => {
    const { cause } = probe(index, asClient({ at: "host", host: host.id }, goal), nobody);
    return { group, name, goal, passes: cause === null, why: cause?.sentence ?? "" };
  };
  const segments = [...index.plan.segment.values()]
    .sort((a, b) => byNaturalText(a.name, b.name))
    .flatMap((segment): HostReach[] => {
      const target = index
        .hostsIn(segment.id)
        .find((other) => other.id !== host.id && other.attachment.at !== "unplaced");
      return target === undefined
        ? []
        : [ask("segment", `${segment.name}, ${target.name}`, { to: "host", host: target.id, service: null })];
    });
  const pages = [...index.plan.device.values()]
    .filter((device) => managementAddress(index, device, 4) !== undefined)
    .sort((a, b) => byNaturalText(a.name, b.name))
    .map((device) =>
      ask("pages", device.name, {
        to: "device",
        device: device.id,
        service: { name: "https", protocol: "tcp", ports: [[443, 443]] },
      }),
    );
  return [ask("outside", "the internet", { to: "internet", service: null }), ...segments, ...pages];
}
