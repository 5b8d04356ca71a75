import { byNaturalText } from "../kernel";
import { nameOf, type PlanIndex, type Port } from "../plan";

/** One thing that can fail. */
export type Failure =
  | { readonly what: "device"; readonly id: string }
  | { readonly what: "cable"; readonly id: string }
  /** One strand of a fibre: the port hears nothing any more, and the other end notices nothing. */
  | { readonly what: "strand"; readonly id: string }
  | { readonly what: "feed"; readonly feed: string }
  | { readonly what: "line"; readonly id: string };

export const failureKey = (failure: Failure): string =>
  `${failure.what} ${failure.what === "feed" ? failure.feed : failure.id}`;

export function failureName(index: PlanIndex, failure: Failure): string {
  switch (failure.what) {
    case "device":
      return nameOf(index, "device", failure.id);
    case "cable": {
      const link = index.plan.link.get(failure.id);
      return link === undefined
        ? "a removed cable"
        : `${link.label === "" ? "" : `${link.label}: `}${nameOf(index, "port", link.a)} ` +
            `to ${nameOf(index, "port", link.b)}`;
    }
    case "strand":
      return `one strand to ${nameOf(index, "port", failure.id)}, which then hears nothing`;
    case "feed":
      return `the supply ${failure.feed}`;
    case "line":
      return nameOf(index, "line", failure.id);
  }
}

const runsTree = ({ plan }: PlanIndex, port: Port): boolean =>
  plan.device.get(port.device)?.tree.kind !== "none";

/**
 * The ports that one dead strand of a fibre makes deaf with more harm than the whole cable does: between gear
 * that runs a spanning tree, where no loop guard waits for what is not heard any more.
 */
function deafPorts(index: PlanIndex): string[] {
  return [...index.plan.link.values()]
    .filter(({ medium }) => medium === "fibre")
    .flatMap(({ a, b }) => {
      const ends = [a, b].flatMap((id) => index.plan.port.get(id) ?? []);
      return ends.length === 2 && ends.every((port) => runsTree(index, port)) ? ends : [];
    })
    .filter(({ guards }) => !guards.loopGuard)
    .map(({ id }) => id);
}

/**
 * Everything that can fail alone: each device, each cable between gear, each strand whose loss is worse than
 * its cable's, each supply that something hangs on, each line.
 */
export function singleFailures(index: PlanIndex): Failure[] {
  const { plan } = index;
  const named = (ids: Iterable<string>, what: "device" | "cable" | "strand" | "line"): Failure[] =>
    [...ids]
      .map((id): Failure => ({ what, id }))
      .sort((a, b) => byNaturalText(failureName(index, a), failureName(index, b)));
  const feeds = [
    ...new Set(
      [...plan.device.values()]
        .flatMap((device) => [device.feed, device.backupFeed])
        .filter((feed) => feed !== ""),
    ),
  ].sort(byNaturalText);
  return [
    ...named(plan.device.keys(), "device"),
    ...named(plan.link.keys(), "cable"),
    ...named(deafPorts(index), "strand"),
    ...feeds.map((feed): Failure => ({ what: "feed", feed })),
    ...named(plan.line.keys(), "line"),
  ];
}

/**
 * What goes dark when things fail: devices, cables, lines. A device with a second feed goes on while that one
 * lives.
 */
export interface Dark {
  readonly devices: ReadonlySet<string>;
  readonly cables: ReadonlySet<string>;
  readonly lines: ReadonlySet<string>;
}

export function darkAfter(index: PlanIndex, failures: readonly Failure[]): Dark {
  const { plan } = index;
  const feeds = new Set(failures.flatMap((failure) => (failure.what === "feed" ? [failure.feed] : [])));
  const devices = new Set(failures.flatMap((failure) => (failure.what === "device" ? [failure.id] : [])));
  if (feeds.size > 0)
    for (const device of plan.device.values())
      if (
        device.feed !== "" &&
        feeds.has(device.feed) &&
        (device.backupFeed === "" || feeds.has(device.backupFeed))
      )
        devices.add(device.id);
  return {
    devices,
    cables: new Set(
      failures.flatMap((failure) => {
        if (failure.what === "cable") return [failure.id];
        // What goes one way only carries no conversation.
        return failure.what === "strand" ? [index.linkAt(failure.id)?.id ?? ""] : [];
      }),
    ),
    lines: new Set(failures.flatMap((failure) => (failure.what === "line" ? [failure.id] : []))),
  };
}
