import { byNaturalText, equal, grouped } from "../kernel";
import {
  PlanEdits,
  type CollectionKind,
  type Device,
  type EntityOf,
  type Interface,
  type Plan,
  type PlanIndex,
  type Port,
} from "../plan";
import {
  DEVICE_SETTINGS,
  isFirstLeg,
  isFirstScope,
  isUnpowered,
  ON_DEVICES,
  PORT_SETTINGS,
  setUpDevices,
} from "./found";

/** The pages of a device, in the order in which a careful person turns them. */
export const PAGES = [
  "power",
  "software",
  "ownServer",
  "vlans",
  "tree",
  "ports",
  "address",
  "line",
  "routes",
  "baseline",
  "scope",
  "filter",
  "wireless",
  "trunk",
  "guards",
] as const;
export type Page = (typeof PAGES)[number];

/** One edit of an operation; edits of different operations never touch the same field. */
export type Edit =
  | { readonly do: "set"; readonly kind: CollectionKind; readonly id: string; readonly fields: object }
  | { readonly do: "put"; readonly kind: CollectionKind; readonly entity: EntityOf<CollectionKind> }
  | { readonly do: "remove"; readonly kind: CollectionKind; readonly id: string };

/** What is done on one page of one device, before it is looked at again. */
export interface Operation {
  readonly id: string;
  readonly device: string;
  readonly page: Page;
  readonly edits: readonly Edit[];
  /** The ports it is about, in the order of their places. */
  readonly ports: readonly Port[];
  /** Operations that come before it, whatever the simulation says. */
  readonly after: readonly string[];
}

interface Made {
  readonly key: string;
  readonly page: Page;
  readonly edits: readonly Edit[];
  readonly ports?: readonly Port[];
}

const changed = <T extends object>(before: T, after: T, fields: readonly (keyof T)[]): (keyof T)[] =>
  fields.filter((field) => !equal(before[field], after[field]));

const fieldsOf = <T extends object>(entity: T, fields: readonly (keyof T)[]): object =>
  Object.fromEntries(fields.map((field) => [field, entity[field]]));

/** The difference of one device: what is on it, and what has to be. */
class Difference {
  readonly #device: Device;
  readonly #found: PlanIndex;
  readonly #was: Plan;
  readonly #plan: Plan;
  readonly #index: PlanIndex;

  constructor(found: PlanIndex, index: PlanIndex, device: Device) {
    this.#device = device;
    this.#found = found;
    this.#was = found.plan;
    this.#plan = index.plan;
    this.#index = index;
  }

  #own<T extends { readonly device: string }>(all: Iterable<T>): T[] {
    return [...all].filter(({ device }) => device === this.#device.id);
  }

  /** The entities of a kind that are made, changed or gone on the device. */
  #edits<K extends CollectionKind>(
    kind: K,
    isOwn: (entity: EntityOf<K>) => boolean,
  ): { readonly edit: Edit; readonly of: EntityOf<K> }[] {
    const was = this.#was[kind] as ReadonlyMap<string, EntityOf<K>>;
    const is = this.#plan[kind] as ReadonlyMap<string, EntityOf<K>>;
    const put = [...is.values()].flatMap((entity) =>
      !isOwn(entity) || equal(was.get(entity.id), entity)
        ? []
        : [{ edit: { do: "put" as const, kind, entity }, of: entity }],
    );
    const gone = [...was.values()].flatMap((entity) =>
      !isOwn(entity) || is.has(entity.id)
        ? []
        : [{ edit: { do: "remove" as const, kind, id: entity.id }, of: entity }],
    );
    return [...put, ...gone];
  }

  #settings(page: Page, fields: readonly (keyof Device)[], more: readonly Edit[] = []): Made[] {
    const was = this.#was.device.get(this.#device.id) ?? this.#device;
    const own = changed(was, this.#device, fields);
    const set: Edit[] =
      own.length === 0
        ? []
        : [{ do: "set", kind: "device", id: this.#device.id, fields: fieldsOf(this.#device, own) }];
    const edits = [...more, ...set];
    return edits.length === 0 ? [] : [{ key: page, page, edits }];
  }

  #power(): Made[] {
    const off = this.#own(this.#was.port.values());
    if (!isUnpowered(this.#found, this.#device.id)) return [];
    const edits = off.map(({ id }): Edit => ({
      do: "set",
      kind: "port",
      id,
      fields: { enabled: true },
    }));
    return [{ key: "power", page: "power", edits }];
  }

  /** Ports that become the same from the same are one operation; each way to other gear is one of its own. */
  #ports(isPowered: boolean): Made[] {
    const edits = this.#index.portsOf(this.#device.id).flatMap((port) => {
      const found = this.#was.port.get(port.id) ?? port;
      const was = isPowered ? { ...found, enabled: true } : found;
      const own = changed(was, port, PORT_SETTINGS);
      if (own.length === 0) return [];
      const isTrunk = this.#index.linkAt(port.id) !== undefined;
      const like = JSON.stringify([fieldsOf(was, PORT_SETTINGS), fieldsOf(port, PORT_SETTINGS)]);
      const set: Edit = { do: "set", kind: "port", id: port.id, fields: fieldsOf(port, own) };
      return [{ port, set, isTrunk, key: isTrunk ? (port.lag ?? port.id) : like }];
    });
    const runs = [...grouped(edits, ({ key }) => key)].map(([, run], at): Made => {
      const ports = run.map(({ port }) => port).sort((a, b) => a.position - b.position);
      const page = run.some(({ isTrunk }) => isTrunk) ? "trunk" : "ports";
      const lags = new Set(ports.map(({ lag }) => lag));
      const joined = this.#edits("lag", ({ id, device }) => device === this.#device.id && lags.has(id));
      return {
        key: `${page} ${page === "trunk" ? (ports[0]?.id ?? "") : at}`,
        page,
        edits: [...joined.map(({ edit }) => edit), ...run.map(({ set }) => set)],
        ports,
      };
    });
    return [...runs, ...this.#lags(edits.map(({ port }) => port.lag))];
  }

  /** LAGs that change although their ports stay. */
  #lags(told: readonly (string | null)[]): Made[] {
    return this.#edits("lag", ({ device }) => device === this.#device.id).flatMap(({ edit, of }) =>
      edit.do === "remove" || told.includes(of.id)
        ? []
        : [{ key: `lag ${of.id}`, page: "trunk" as const, edits: [edit] }],
    );
  }

  /** Segments that give their clients one of these legs as gateway, and did not before. */
  #gatewayOf({ id }: Interface): Edit[] {
    return [...this.#plan.segment.values()].flatMap((segment): Edit[] =>
      segment.gatewayInterface !== id || this.#was.segment.get(segment.id)?.gatewayInterface === id
        ? []
        : [{ do: "set", kind: "segment", id: segment.id, fields: { gatewayInterface: id } }],
    );
  }

  /** The VLAN of a segment, so that its operations come in the order in which people count. */
  #vidOf(segment: string | null): number {
    const own = this.#plan.segment.get(segment ?? "");
    return own === undefined ? 0 : (this.#index.vidOf(own) ?? 0);
  }

  /** Each leg is one operation; the first address goes with the leg that takes its place. */
  #legs(): Made[] {
    const edits = this.#edits("interface", ({ device }) => device === this.#device.id);
    const first = edits.filter(({ of, edit }) => edit.do === "remove" && isFirstLeg(of));
    const others = edits.filter((edit) => !first.includes(edit));
    const managed = others.find(
      ({ of, edit }) => edit.do === "put" && this.#plan.segment.get(of.segment ?? "")?.management === true,
    );
    const instead = managed ?? others.find(({ of, edit }) => edit.do === "put" && of.line === null);
    return others.map(({ edit, of }) => ({
      key: `leg ${this.#vidOf(of.segment)} ${of.id}`,
      page: of.line === null ? "address" : "line",
      edits: [
        edit,
        ...this.#gatewayOf(of),
        ...(instead?.of.id === of.id ? first.map((part) => part.edit) : []),
      ],
    }));
  }

  #scopes(): Made[] {
    return this.#edits("scope", ({ serverDevice }) => serverDevice === this.#device.id).map(
      ({ edit, of }) => {
        const page = edit.do === "remove" && isFirstScope(this.#found, of) ? "ownServer" : "scope";
        return { key: `${page} ${this.#vidOf(of.segment)} ${of.id}`, page, edits: [edit] };
      },
    );
  }

  /** What is switched on to guard it, port by port and as a whole. */
  #guards(): Made[] {
    const ports = this.#index.portsOf(this.#device.id).filter((port) => {
      const was = this.#was.port.get(port.id);
      return was !== undefined && !equal(was.guards, port.guards);
    });
    const set = ports.map(({ id, guards }): Edit => ({
      do: "set",
      kind: "port",
      id,
      fields: { guards },
    }));
    return this.#settings("guards", ["protections", "adminSignIn"], set).map((made) => ({ ...made, ports }));
  }

  /**
   * Of gear with one port the address and that port are set together: either alone leaves nothing that reaches
   * it, and there is no other port to go to.
   */
  #together(all: readonly Made[]): Made[] {
    const own = this.#index.portsOf(this.#device.id).length === 1;
    const port = all.find(({ page }) => page === "trunk" || page === "ports");
    const addresses = all.filter(({ page }) => page === "address");
    const address = addresses.find(({ edits }) => edits.some((edit) => edit.do === "remove")) ?? addresses[0];
    if (!own || port === undefined || address === undefined) return [...all];
    const both: Made = { ...address, edits: [...address.edits, ...port.edits], ports: port.ports ?? [] };
    return [...all.filter((made) => made !== port && made !== address), both];
  }

  made(): Made[] {
    const own = <K extends (typeof ON_DEVICES)[number] | "radio">(kind: K): Edit[] =>
      this.#edits(kind, (owned) => owned.device === this.#device.id).map(({ edit }) => edit);
    const page = (name: Page, edits: readonly Edit[]): Made[] =>
      edits.length === 0 ? [] : [{ key: name, page: name, edits }];
    const power = this.#power();
    const rest = DEVICE_SETTINGS.filter(
      (setting) =>
        !["tree", "filter", "protections", "adminSignIn", "baseline", "softwareWanted"].includes(setting),
    );
    // Where any software will do, there is none to bring in.
    const software = this.#device.softwareWanted === "" ? [] : this.#settings("software", ["softwareWanted"]);
    return this.#together([
      ...power,
      ...software,
      ...page("vlans", own("deviceVlan")),
      ...this.#settings("tree", ["tree"]),
      ...this.#ports(power.length > 0),
      ...this.#legs(),
      ...this.#settings("routes", rest),
      ...this.#settings("baseline", ["baseline"]),
      ...this.#scopes(),
      ...this.#settings("filter", ["filter"], own("rule")),
      ...page("wireless", own("radio")),
      ...this.#guards(),
    ]).sort((a, b) => PAGES.indexOf(a.page) - PAGES.indexOf(b.page) || byNaturalText(a.key, b.key));
  }
}

const FIRST: readonly Page[] = ["power", "software", "ownServer"];
/** Which pages of the same device come before a page, whatever the simulation says. */
const BEFORE: Readonly<Record<Page, readonly Page[]>> = {
  power: [],
  software: ["power"],
  // It answers whoever hangs on the same wire: nothing is set before it is off.
  ownServer: ["power", "software"],
  vlans: FIRST,
  tree: FIRST,
  ports: [...FIRST, "vlans"],
  address: [...FIRST, "vlans"],
  line: [...FIRST, "vlans"],
  routes: [...FIRST, "address", "line"],
  baseline: FIRST,
  scope: [...FIRST, "address"],
  filter: [...FIRST, "address", "line"],
  wireless: [...FIRST, "vlans"],
  trunk: [...FIRST, "vlans"],
  guards: [...FIRST, "tree", "ports", "address", "trunk"],
};

/**
 * What has to be done on the devices, from what is found to the plan: operations whose edits can be done in any
 * order. Guards that drop what no server said come after the servers' scopes, wherever they are.
 */
export function operationsBetween(found: PlanIndex, index: PlanIndex): Operation[] {
  const bare = setUpDevices(index).flatMap((device) =>
    new Difference(found, index, device).made().map((made) => ({ ...made, device: device.id })),
  );
  const idOf = ({ device, key }: { readonly device: string; readonly key: string }) => `${device} ${key}`;
  const scopes = bare.filter(({ page }) => page === "scope").map(idOf);
  return bare.map((found) => ({
    id: idOf(found),
    device: found.device,
    page: found.page,
    edits: found.edits,
    ports: found.ports ?? [],
    after: [
      ...new Set([
        ...bare
          .filter(({ device, page }) => device === found.device && BEFORE[found.page].includes(page))
          .map(idOf),
        ...(found.page === "guards" ? scopes : []),
      ]),
    ],
  }));
}

/** Does an operation's edits. */
export function editsOf(edits: PlanEdits, { edits: all }: Operation): PlanEdits {
  for (const edit of all)
    if (edit.do === "remove") edits.remove(edit.kind, edit.id);
    else if (edit.do === "put") edits.put(edit.kind, edit.entity);
    else if (edits.get(edit.kind, edit.id) !== undefined) edits.patch(edit.kind, edit.id, edit.fields);
  return edits;
}

/** What only the state before had, and no device has: it goes without anybody doing anything. */
export function leftOver(last: Plan, plan: Plan): PlanEdits {
  const edits = new PlanEdits(last);
  for (const kind of ["interface", "lag", "segment", "vlan", "zone"] as const)
    for (const { id } of last[kind].values()) if (!plan[kind].has(id)) edits.remove(kind, id);
  // Where any software will do, what runs is no difference.
  for (const { id, softwareWanted } of plan.device.values())
    if (softwareWanted === "") edits.patch("device", id, { softwareWanted });
  return edits;
}
