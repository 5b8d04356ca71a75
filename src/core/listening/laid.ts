import type { HeardFile } from "../heard";
import { nameOf, type PlanIndex } from "../plan";
import { addressLines } from "./addresses";
import { gearLines } from "./gear";
import { leaseLines } from "./leases";
import type { LaidLine, Listening } from "./line";
import type { Tap } from "./tap";
import { unusualLines } from "./unusual";
import { vlanLines } from "./vlans";
import { gearByMac, wireLines, type WireLine } from "./wire";

/** A capture beside the plan. */
export interface Laid {
  /** Those that are otherwise first. */
  readonly lines: readonly LaidLine[];
  /** What was heard, as faults are laid beside it. */
  readonly heard: readonly WireLine[];
}

/** Who has which MAC address: end devices, legs of gear, and gear itself. */
const namesByMac = (index: PlanIndex): ReadonlyMap<string, string> =>
  new Map<string, string>([
    ...[...index.plan.interface.values()].flatMap(({ mac, device }): [string, string][] =>
      mac === null ? [] : [[mac, nameOf(index, "device", device)]],
    ),
    ...gearByMac(index),
    ...[...index.plan.host.values()].flatMap(({ mac, name }): [string, string][] =>
      mac === null ? [] : [[mac, name]],
    ),
  ]);

const ORDER: Readonly<Record<LaidLine["verdict"], number>> = { otherwise: 0, right: 1, note: 2 };

/** Lays what was heard at a port beside what should be heard there. `port` is an id of the plan. */
export function laidBeside(index: PlanIndex, port: string, tap: Tap, heard: HeardFile): Laid {
  const listening: Listening = {
    index,
    port,
    tap,
    heard,
    planned: wireLines(index, port),
    names: namesByMac(index),
    asked: new Map(),
    isWhole: heard.stopped === null && heard.cutFrames === 0 && heard.unread === 0 && !heard.leftOut,
  };
  const lines = [
    ...vlanLines(listening),
    ...leaseLines(listening),
    ...addressLines(listening),
    ...gearLines(listening),
    ...unusualLines(listening),
  ];
  return {
    lines: lines.sort((a, b) => ORDER[a.verdict] - ORDER[b.verdict]),
    heard: lines.flatMap(({ line }) => (line === null ? [] : [line])),
  };
}
