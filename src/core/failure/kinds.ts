import { byNaturalText } from "../kernel";
import { nameOf, type PlanIndex } from "../plan";

/** One thing that can fail. */
export type Failure =
  | { readonly what: "device"; readonly id: string }
  | { readonly what: "cable"; readonly id: string }
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
    case "feed":
      return `the supply ${failure.feed}`;
    case "line":
      return nameOf(index, "line", failure.id);
  }
}

/**
 * Everything that can fail alone: each device, each cable between gear, each supply that something hangs on,
 * each line.
 */
export function singleFailures(index: PlanIndex): Failure[] {
  const { plan } = index;
  const named = (ids: Iterable<string>, what: "device" | "cable" | "line"): Failure[] =>
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

export function darkAfter({ plan }: PlanIndex, failures: readonly Failure[]): Dark {
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
    cables: new Set(failures.flatMap((failure) => (failure.what === "cable" ? [failure.id] : []))),
    lines: new Set(failures.flatMap((failure) => (failure.what === "line" ? [failure.id] : []))),
  };
}
