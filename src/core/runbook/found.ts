import { containsPrefix, formatAddress, ipv4, type Ipv4, type Prefix4 } from "../address";
import { byNaturalText, must } from "../kernel";
import {
  afterEdits,
  firstAddressOf,
  BLANK_SEGMENT,
  BLANK_TREE,
  BLANK_ZONE,
  isAdministered,
  isGateway,
  NO_BASELINE,
  NO_GUARDS,
  NO_PROTECTIONS,
  PlanEdits,
  usualFilter,
  vid,
  type Device,
  type Interface,
  type Plan,
  type PlanIndex,
  type Port,
  type Scope,
  type Segment,
} from "../plan";
import { devicesInOrder } from "../sheets";

// What is on the devices before the work begins, as a plan of its own: the site's drawing is that of the plan
// (rooms, cables, hosts, what is meant), and only what is entered on devices differs. So every question that
// can be put to a plan can be put to the site as it is found.

/** The settings of a device that are entered on its pages, beside its legs, ports and VLANs. */
export const DEVICE_SETTINGS = [
  "tree",
  "protections",
  "adminSignIn",
  "routes",
  "defaultRoute",
  "filter",
  "asksFrom",
  "repeatsDiscovery",
  "baseline",
  "softwareWanted",
] as const satisfies readonly (keyof Device)[];

/** The settings of a port that are entered on its device, beside its guards. */
export const PORT_SETTINGS = [
  "enabled",
  "pvid",
  "untagged",
  "tagged",
  "admit",
  "ingressFilter",
  "treePriority",
  "treeCost",
  "voicePolicy",
  "lag",
] as const satisfies readonly (keyof Port)[];

/** Kinds whose entities are made on the device that they name. */
export const ON_DEVICES = ["deviceVlan", "lag", "interface", "rule"] as const;

/** The VLAN that every port of gear out of the box is untagged in (IEEE 802.1Q section 8.8, default PVID). */
const FIRST_VID = must(vid(1), "VLAN 1");

const NEW_PORT: Pick<Port, (typeof PORT_SETTINGS)[number]> = {
  enabled: true,
  pvid: FIRST_VID,
  untagged: [FIRST_VID],
  tagged: [],
  admit: "all",
  ingressFilter: true,
  treePriority: 128,
  treeCost: null,
  voicePolicy: null,
  lag: null,
};

/**
 * Where the first addresses of gear lie until its leaflet has been read: of the range for measurements (RFC
 * 2544), which no plan uses. Only which of them are the same matters.
 */
const LEAFLETS = must(ipv4(0xc6120000), "198.18.0.0");
const LEAFLET_LENGTH = 28;
const STEP = 2 ** (32 - LEAFLET_LENGTH);

/** Subnets for leaflets, one after the other, those left out that the plan itself uses. */
function leafletSubnets({ segment }: Plan, count: number): Prefix4[] {
  const used = [...segment.values()].flatMap(({ prefixes4 }) => prefixes4);
  return Array.from({ length: count + used.length }, (_, at): Prefix4 => ({
    family: 4,
    network: must(ipv4(LEAFLETS + at * STEP), "a subnet of leaflets"),
    length: LEAFLET_LENGTH,
  })).filter(
    (subnet) => !used.some((prefix4) => containsPrefix(prefix4, subnet) || containsPrefix(subnet, prefix4)),
  );
}

/** So many addresses has the pool of gear that is a DHCP server out of the box, of the 14 of its subnet. */
const FIRST_POOL = 8;

/** What is known of how a device answers out of the box. */
interface First {
  readonly key: string;
  readonly gives: boolean;
}

/** Ids that are the same each time for the same thing: a state can be made again and compared. */
const madeId = (of: string, number: number): string =>
  `${of.slice(0, 24)}${(0xf00000000000 + number).toString(16)}`;

/** A device's first address is its leg with this name. */
const FIRST_LEG = "First address";
/** Whether a leg is the one that a device has out of the box. */
export const isFirstLeg = ({ name, addresses4 }: Interface): boolean =>
  name === FIRST_LEG && (addresses4[0] ?? 0) >= LEAFLETS && (addresses4[0] ?? 0) < LEAFLETS + 2 ** 17;

/** Whether a scope is the one that a device gives out of the box. */
export const isFirstScope = (index: PlanIndex, { segment, serverDevice }: Scope): boolean =>
  serverDevice !== null &&
  index.interfacesOf(serverDevice).some((leg) => leg.segment === segment && isFirstLeg(leg));

/** Gear with the same first address gets in one another's way; of what nobody knows one model has the same. */
export function firstKey(index: PlanIndex, device: Device): string {
  const first = firstAddressOf(index, device);
  return first === null ? device.model : formatAddress(first.address);
}

/** One of the segments in which new gear answers, in VLAN 1 of its domain; made where there is none. */
class Leaflets {
  readonly #edits: PlanEdits;
  readonly #segments = new Map<string, Segment>();
  /** By model. */
  readonly #subnets: ReadonlyMap<string, Prefix4>;

  constructor(edits: PlanEdits, models: readonly string[]) {
    this.#edits = edits;
    const subnets = leafletSubnets(edits.plan, models.length);
    this.#subnets = new Map(models.map((model, at) => [model, must(subnets[at], "a subnet for each")]));
  }

  #zone(): string {
    const [zone] = this.#edits.all("zone");
    if (zone !== undefined) return zone.id;
    return this.#edits.put("zone", {
      ...BLANK_ZONE,
      id: madeId(this.#edits.plan.site.id, 0),
      name: "Out of the box",
    }).id;
  }

  #vlan(domain: string): string {
    const known = this.#edits.all("vlan").find((vlan) => vlan.domain === domain && vlan.vid === FIRST_VID);
    if (known !== undefined) return known.id;
    const id = madeId(domain, 1);
    return this.#edits.put("vlan", { id, domain, vid: FIRST_VID, name: "Out of the box", purpose: "segment" })
      .id;
  }

  /** The segment of a first address, by what tells those apart, whatever domain its gear is in. */
  of(model: string, domain: string): { readonly segment: Segment; readonly address: Ipv4 } {
    const subnet = must(this.#subnets.get(model), "every model has a subnet");
    const key = `${domain} ${model}`;
    const made =
      this.#segments.get(key) ??
      this.#edits.put("segment", {
        ...BLANK_SEGMENT,
        id: madeId(domain, 16 + this.#segments.size),
        zone: this.#zone(),
        vlan: this.#vlan(domain),
        name: `Out of the box, ${model === "" ? "no model" : model}`.slice(0, 80),
        mark: "..",
        tape: { base: "grey", tracer: null },
        prefixes4: [subnet],
      });
    this.#segments.set(key, made);
    return { segment: made, address: must(ipv4(subnet.network + 1), "its first address") };
  }
}

/** A port that a line comes in at is no port of the device's switch, out of the box either. */
const isOutside = ({ plan }: PlanEdits, { id }: Port): boolean =>
  [...plan.interface.values()].some(({ port, line }) => port === id && line !== null);

/** The software that runs on a device as it is found; the wanted one where any will do. */
const softwareOn = ({ softwareFound, softwareWanted }: Device): string =>
  softwareWanted === "" ? "" : softwareFound;

/** What is entered on a device is taken away: it is as it came out of the box, and not powered yet. */
function reset(edits: PlanEdits, device: Device, leaflets: Leaflets, first: First): void {
  const { plan } = edits;
  edits.patch("device", device.id, {
    tree: { ...BLANK_TREE, kind: device.abilities.trees.includes("rapid") ? "rapid" : "none" },
    protections: NO_PROTECTIONS,
    adminSignIn: { by: "local", servers: [], port: null, localAccount: true },
    routes: [],
    defaultRoute: "asSegment",
    filter: isGateway(device) ? { ...usualFilter(device), list: "none" } : usualFilter(device),
    asksFrom: null,
    repeatsDiscovery: [],
    baseline: NO_BASELINE,
    softwareWanted: softwareOn(device),
  });
  for (const port of plan.port.values())
    if (port.device === device.id)
      edits.patch("port", port.id, {
        ...(isOutside(edits, port) ? {} : NEW_PORT),
        enabled: false,
        guards: NO_GUARDS,
      });
  for (const kind of ON_DEVICES)
    for (const owned of plan[kind].values()) if (owned.device === device.id) edits.remove(kind, owned.id);
  for (const radio of plan.radio.values())
    if (radio.device === device.id) edits.patch("radio", radio.id, { enabled: false });
  for (const scope of plan.scope.values())
    if (scope.serverDevice === device.id) edits.remove("scope", scope.id);
  if (device.domain === null) return;
  const { segment, address } = leaflets.of(first.key, device.domain);
  edits.put("interface", {
    id: madeId(device.id, 2),
    device: device.id,
    port: null,
    segment: segment.id,
    line: null,
    name: FIRST_LEG,
    mac: null,
    addresses4: [address],
    addresses6: [],
    relayTo: null,
    translates: "asUsual",
  });
  if (first.gives) edits.put("scope", firstScope(device, segment, address));
}

/** What gear that is a DHCP server out of the box gives: addresses behind its own. */
const firstScope = (device: Device, segment: Segment, address: Ipv4): Scope => ({
  id: madeId(device.id, 3),
  segment: segment.id,
  serverDevice: device.id,
  serverHost: null,
  family: 4,
  pools: [
    { first: must(ipv4(address + 1), "the second"), last: must(ipv4(address + FIRST_POOL), "the last") },
  ],
  exclusions: [],
  leaseSeconds: 3600,
  options: [],
});

/** Segments know the gateway's leg that the plan gives them exactly as long as it is there. */
export function settleGateways(edits: PlanEdits, plan: Plan): void {
  for (const { id, gatewayInterface } of edits.all("segment")) {
    const planned = plan.segment.get(id)?.gatewayInterface ?? null;
    const now = planned !== null && edits.get("interface", planned) !== undefined ? planned : null;
    if (gatewayInterface !== now) edits.patch("segment", id, { gatewayInterface: now });
  }
}

/** Whether a device is as it lies in its box: nobody has given it power yet. */
export const isUnpowered = (index: PlanIndex, device: string): boolean => {
  const ports = index.portsOf(device);
  return (
    ports.length > 0 && ports.every(({ enabled }) => !enabled) && index.interfacesOf(device).some(isFirstLeg)
  );
};

/** The gear that is set up, in the order of the work. */
export const setUpDevices = (index: PlanIndex): Device[] => devicesInOrder(index).filter(isAdministered);

/** The settings of a device and its ports are as an earlier plan has them. */
function restoreSettings(edits: PlanEdits, device: Device, before: Plan): void {
  const { id } = device;
  const was = must(before.device.get(id), "the earlier plan has it");
  for (const setting of DEVICE_SETTINGS) edits.patch("device", id, { [setting]: was[setting] });
  if (was.softwareWanted === "") edits.patch("device", id, { softwareWanted: softwareOn(device) });
  for (const port of edits.plan.port.values()) {
    const then = port.device === id ? before.port.get(port.id) : undefined;
    if (then === undefined) continue;
    for (const setting of PORT_SETTINGS) edits.patch("port", port.id, { [setting]: then[setting] });
    edits.patch("port", port.id, { guards: then.guards });
  }
}

/** What stands on a device is as an earlier plan has it: what that had, and nothing else. */
function restoreMade(edits: PlanEdits, { id }: Device, before: Plan): void {
  const { plan } = edits;
  for (const kind of ON_DEVICES) {
    for (const owned of plan[kind].values()) if (owned.device === id) edits.remove(kind, owned.id);
    for (const owned of before[kind].values()) if (owned.device === id) edits.put(kind, owned);
  }
  for (const radio of before.radio.values())
    if (radio.device === id && plan.radio.has(radio.id)) edits.put("radio", radio);
  for (const scope of plan.scope.values()) if (scope.serverDevice === id) edits.remove("scope", scope.id);
  for (const scope of before.scope.values()) if (scope.serverDevice === id) edits.put("scope", scope);
}

/** What stands on devices of an earlier plan and points at something that is gone is left out. */
function dropDangling(edits: PlanEdits): void {
  const isThere = (id: string | null, kind: "segment" | "line" | "port") =>
    id === null || edits.get(kind, id) !== undefined;
  for (const leg of edits.all("interface"))
    if (!isThere(leg.segment, "segment") || !isThere(leg.line, "line") || !isThere(leg.port, "port"))
      edits.remove("interface", leg.id);
  for (const scope of edits.all("scope"))
    if (!isThere(scope.segment, "segment")) edits.remove("scope", scope.id);
}

/**
 * The site as it is found: by an earlier plan, or, where there is none or it has no such device, as gear comes
 * out of its box: every port untagged in VLAN 1, one first address, the same for all of one model, and not
 * powered. Cables are in place. The edits lead from the plan to what is found; null where that is no plan.
 */
export function foundState(index: PlanIndex, before: Plan | null): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  const devices = setUpDevices(index);
  const leaflets = new Leaflets(
    edits,
    [...new Set(devices.map((device) => firstKey(index, device)))].sort(byNaturalText),
  );
  for (const device of devices)
    if (before?.device.has(device.id) === true) {
      restoreSettings(edits, device, before);
      restoreMade(edits, device, before);
    } else {
      const gives = firstAddressOf(index, device)?.gives === true;
      reset(edits, device, leaflets, { key: firstKey(index, device), gives });
    }
  dropDangling(edits);
  settleGateways(edits, index.plan);
  return afterEdits(index, edits);
}

/**
 * A state of the site with one device as another state has it: what was saved, what came out of the box. Null
 * where that is no state.
 */
export function withDeviceAs(
  index: PlanIndex,
  device: Device,
  source: PlanIndex,
  plan: Plan,
): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  restoreSettings(edits, device, source.plan);
  restoreMade(edits, device, source.plan);
  dropDangling(edits);
  settleGateways(edits, plan);
  return afterEdits(index, edits);
}
