import type { Derived, Device, Host, PlanIndex, PoeChoice, Port } from "../plan";
import { CATALOGUE, catalogueOf, portPowerMw } from "../catalogue";

/**
 * A powered device's class of IEEE 802.3 section 145.2.8, 1 to 8; null when it takes no power over the cable.
 */
const CLASSES: Readonly<Record<Exclude<PoeChoice, "asKind">, number | null>> = {
  none: null,
  class1: 1,
  class2: 2,
  class3: 3,
  class4: 4,
  class5: 5,
  class6: 6,
  class7: 7,
  class8: 8,
};
const USUAL_ACCESS_POINT = CATALOGUE.find((kind) => kind.role === "point")?.poeClass ?? null;

interface Kinds {
  readonly byWord: ReadonlyMap<string, number | null>;
  readonly byBase: ReadonlyMap<Host["kind"], number | null>;
}

/** Classes by the survey's word and by kind; the site's own words first. */
const KINDS: Derived<Kinds> = {
  reads: ["hostKind"],
  make: ({ plan }) => {
    const [byWord, byBase] = [new Map<string, number | null>(), new Map<Host["kind"], number | null>()];
    for (const kind of catalogueOf(plan)) {
      if (!byWord.has(kind.word)) byWord.set(kind.word, kind.poeClass);
      if (!byBase.has(kind.base) && (kind.role === "host" || kind.role === "pair"))
        byBase.set(kind.base, kind.poeClass);
    }
    return { byWord, byBase };
  },
};

/**
 * The class of an end device: its own, else that of the survey's word for it, else what its kind usually has.
 */
export function classOfHost(index: PlanIndex, host: Host): number | null {
  if (host.poe !== "asKind") return CLASSES[host.poe];
  if (host.attachment.at === "ssid") return null;
  const { byWord, byBase } = index.derived(KINDS);
  const known = host.surveyed === null ? undefined : byWord.get(host.surveyed.what);
  return known === undefined ? (byBase.get(host.kind) ?? null) : known;
}

export const classOfDevice = (device: Device): number | null => {
  if (device.poe !== "asKind") return CLASSES[device.poe];
  if (device.kind === "accessPoint") return USUAL_ACCESS_POINT;
  return null;
};

/** Power as it is written. */
export const watts = (mw: number): string => `${mw / 1000} W`;

/** Something that takes power at a port. */
export interface Load {
  readonly port: Port;
  readonly kind: "host" | "device";
  readonly id: string;
  readonly name: string;
  readonly poeClass: number;
  readonly mw: number;
}

/**
 * What takes power at a port: the end device in it, or the gear at the far end of its cable. Null when
 * nothing does.
 */
export function loadAt(index: PlanIndex, port: Port): Load | null {
  const peer = index.peerOf(port.id);
  if (peer !== undefined) {
    const device = index.plan.device.get(peer.device);
    const poeClass = device === undefined ? null : classOfDevice(device);
    // Two cables to one access point feed it once: by the first of its ports.
    const feeds =
      device === undefined || poeClass === null
        ? undefined
        : index.portsOf(device.id).find((own) => index.linkAt(own.id) !== undefined);
    return device === undefined || poeClass === null || feeds?.id !== peer.id
      ? null
      : { port, kind: "device", id: device.id, name: device.name, poeClass, mw: portPowerMw(poeClass) };
  }
  const host = index.groups("hostsByPort").get(port.id)?.[0];
  const poeClass = host === undefined ? null : classOfHost(index, host);
  return host === undefined || poeClass === null
    ? null
    : { port, kind: "host", id: host.id, name: host.name, poeClass, mw: portPowerMw(poeClass) };
}

/** What a device's ports have to give against what it can. */
export interface PowerBudget {
  readonly device: Device;
  readonly loads: readonly Load[];
  /** Set aside for the classes of what is plugged in at ports that are on. */
  readonly neededMw: number;
  readonly budgetMw: number;
  /** With one supply lost; null when it has one supply only. */
  readonly oneLostMw: number | null;
}

/** The PSE budget of a device. A switch sets aside what the class allows, not what is drawn at the moment. */
export function powerBudget(index: PlanIndex, device: Device): PowerBudget {
  const loads = (index.groups("portsByDevice").get(device.id) ?? []).flatMap((port) =>
    port.poeMw === 0 || !port.enabled ? [] : (loadAt(index, port) ?? []),
  );
  return {
    device,
    loads,
    neededMw: loads.reduce((sum, load) => sum + load.mw, 0),
    budgetMw: device.poeBudgetMw,
    oneLostMw: device.poeOneLostMw,
  };
}

/** The power standard of a port by what it gives, in the words of IEEE 802.3 (Types 1 to 4). */
export function poeStandard(poeMw: number): string {
  if (poeMw === 0) return "none";
  if (poeMw <= 15_400) return "Type 1";
  if (poeMw <= 30_000) return "Type 2";
  return poeMw <= 60_000 ? "Type 3" : "Type 4";
}

/** Everything that takes power over its cable and can be told from the plan, by its id: which class. */
export const POE_READS = [
  "host",
  "hostKind",
  "device",
  "port",
  "link",
] as const satisfies Derived<unknown>["reads"];
