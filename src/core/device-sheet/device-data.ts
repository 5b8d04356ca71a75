import {
  containsAddress,
  formatAddress,
  formatPrefix,
  formatRange,
  netmaskText,
  prefixOf,
  type Address,
  type Ipv4,
  type Prefix,
} from "../address";
import { byNaturalText } from "../kernel";
import { poeStandard } from "../power";
import {
  nameOf,
  segmentsOfSsid,
  ssidsOf,
  type Device,
  type Interface,
  type Line,
  type PlanIndex,
  type Port,
  type Segment,
} from "../plan";
import { asLabel } from "../planners";
import { pluggedIn } from "../sheets";
import { bridgeAddress } from "../spanning-tree";
import { modeOf } from "../fabric";
import { SECURITY_FACTS } from "../wireless";

/** An address with the subnet it lies in, as it is typed into a device. */
export interface SheetAddress {
  readonly address: string;
  readonly prefixLength: number;
  readonly mask: string;
}
export interface SheetVlan {
  readonly vid: number;
  readonly name: string;
  readonly segment: string;
  readonly purpose: string;
}
export interface SheetInterface {
  readonly name: string;
  readonly segment: string;
  readonly vid: number | null;
  readonly line: string;
  readonly port: string;
  readonly addresses4: readonly SheetAddress[];
  readonly addresses6: readonly SheetAddress[];
  readonly relayTo: string;
}
export interface SheetScope {
  readonly segment: string;
  readonly vid: number | null;
  readonly subnet: string;
  readonly pools: readonly string[];
  readonly exclusions: readonly string[];
  readonly gateway: string;
  readonly dns: readonly string[];
  readonly time: readonly string[];
  readonly domainName: string;
  readonly leaseSeconds: number;
  readonly options: readonly { readonly code: number; readonly name: string; readonly value: string }[];
  readonly reservations: readonly { readonly name: string; readonly mac: string; readonly address: string }[];
}
export interface SheetPort {
  readonly label: string;
  readonly softwareName: string;
  readonly pluggedIn: string;
  readonly mode: string;
  readonly enabled: boolean;
  readonly pvid: number | null;
  readonly untagged: readonly number[];
  readonly tagged: readonly number[];
  readonly admit: Port["admit"];
  readonly ingressFilter: boolean;
  readonly speedMbps: number;
  readonly poe: string;
  readonly optic: string;
  readonly lag: string;
  readonly guards: Omit<Port["guards"], "profile"> & { readonly profile: string };
  readonly note: string;
  readonly routed: boolean;
}
export interface SheetSsid {
  readonly name: string;
  readonly segments: readonly string[];
  readonly vids: readonly number[];
  readonly security: string;
  readonly hidden: boolean;
  readonly isolation: boolean;
  readonly bands: readonly string[];
}
/** An internet line as it is entered on the device at its end. What nobody knows yet is empty. */
export interface SheetLine {
  readonly name: string;
  readonly port: string;
  readonly addressing: Line["addressing"];
  readonly vlanTag: number | null;
  readonly addresses: readonly string[];
  readonly masks: readonly string[];
  readonly nextHops: readonly string[];
  readonly dns: readonly string[];
}
export interface SheetRadio {
  readonly band: string;
  readonly enabled: boolean;
  readonly channel: number | null;
  readonly widthMhz: number;
  readonly power: string;
}

/**
 * All that is to be entered on one device and what is to be known about it, as plain data: what its sheet,
 * its files and the user's templates are made of.
 */
export interface DeviceData {
  readonly site: string;
  readonly name: string;
  /** The name without spaces, as it can be typed into the device (RFC 1123 section 2.1). */
  readonly hostName: string;
  readonly kind: Device["kind"];
  readonly model: string;
  readonly place: string;
  readonly rackUnit: number | null;
  readonly feed: string;
  readonly backupFeed: string;
  readonly credentialsPlace: string;
  readonly supportUntil: string | null;
  /** Whether that day has passed; false where no day is known. */
  readonly supportEnded: boolean;
  readonly knowsVlans: boolean;
  /** Whether its pages show PVID and membership as two lists. */
  readonly twoLists: boolean;
  readonly tree: Device["tree"];
  /** The MAC address in its bridge identifier, entered or that of its lowest leg; null when nobody knows. */
  readonly bridgeMac: string | null;
  /** The address its own questions leave from, where one is chosen. */
  readonly asksFrom: string | null;
  readonly lines: readonly SheetLine[];
  /** End devices that are to join at this access point. */
  readonly stations: readonly { readonly name: string; readonly ssid: string }[];
  /** Where it is managed: null without an address of its own. */
  readonly management: {
    readonly segment: string;
    readonly vid: number | null;
    readonly address: SheetAddress;
    readonly gateway: string | null;
    readonly dns: readonly string[];
    readonly time: readonly string[];
  } | null;
  readonly vlans: readonly SheetVlan[];
  readonly lags: readonly {
    readonly name: string;
    readonly mode: "static" | "active" | "passive";
    readonly ports: readonly string[];
  }[];
  readonly interfaces: readonly SheetInterface[];
  readonly scopes: readonly SheetScope[];
  readonly ssids: readonly SheetSsid[];
  readonly radios: readonly SheetRadio[];
  /** In the printed order. */
  readonly ports: readonly SheetPort[];
  readonly wayBack: readonly string[];
}

function sheetAddress(prefixes: readonly Prefix[], address: Address): SheetAddress {
  const prefix = prefixes.find((one) => containsAddress(one, address));
  const [length, mask] =
    prefix === undefined
      ? [typeof address === "number" ? 32 : 128, ""]
      : [prefix.length, prefix.family === 4 ? netmaskText(prefix) : ""];
  return { address: formatAddress(address), prefixLength: length, mask };
}

function sheetInterface(index: PlanIndex, leg: Interface): SheetInterface {
  const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
  const line = leg.line === null ? undefined : index.plan.line.get(leg.line);
  const of = (addresses: readonly Address[]) =>
    addresses.map((address) =>
      sheetAddress(
        [...(segment?.prefixes4 ?? []), ...(segment?.prefixes6 ?? []), ...outsidePrefix(line, address)],
        address,
      ),
    );
  return {
    name: leg.name,
    segment: segment?.name ?? "",
    vid: segment === undefined ? null : index.vidOf(segment),
    line: leg.line === null ? "" : (index.plan.line.get(leg.line)?.name ?? ""),
    port: leg.port === null ? "" : (index.plan.port.get(leg.port)?.label ?? ""),
    addresses4: of(leg.addresses4),
    addresses6: of(leg.addresses6),
    relayTo: leg.relayTo === null ? "" : formatAddress(leg.relayTo),
  };
}

/** The prefix that an outside address lies in, as far as the line's length is known. */
function outsidePrefix(line: Line | undefined, address: Address): Prefix[] {
  const length = typeof address === "number" ? line?.length4 : line?.length6;
  const prefix = length === null || length === undefined ? null : prefixOf(address, length);
  return prefix === null ? [] : [prefix];
}

function sheetLines(index: PlanIndex, device: Device): SheetLine[] {
  return index
    .interfacesOf(device.id)
    .flatMap((leg): SheetLine[] => {
      const line = leg.line === null ? undefined : index.plan.line.get(leg.line);
      if (line === undefined) return [];
      const { addresses4, addresses6, port } = sheetInterface(index, leg);
      return [
        {
          name: line.name,
          port,
          addressing: line.addressing,
          vlanTag: line.vlanTag,
          addresses: [...addresses4, ...addresses6].map((one) => one.address),
          dns: line.dns.map(formatAddress),
          masks: [
            ...(line.length4 === null
              ? []
              : [
                  `${netmaskText({ family: 4, network: 0 as Ipv4, length: line.length4 })} (/${line.length4})`,
                ]),
            ...(line.length6 === null ? [] : [`/${line.length6}`]),
          ],
          nextHops: [line.nextHop4, line.nextHop6].flatMap((hop) =>
            hop === null ? [] : [formatAddress(hop)],
          ),
        },
      ];
    })
    .sort((a, b) => byNaturalText(a.name, b.name));
}

const asText = (addresses: readonly Address[]): string[] => addresses.map(formatAddress);

function managementOf(index: PlanIndex, device: Device): DeviceData["management"] {
  const legs = index.interfacesOf(device.id).flatMap((leg) => {
    const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
    const [address] = leg.addresses4;
    return segment === undefined || address === undefined ? [] : [{ leg, segment, address }];
  });
  const own = legs.find(({ segment }) => segment.management) ?? legs[0];
  if (own === undefined) return null;
  const { segment, leg, address } = own;
  const gateway = segment.gatewayInterface === leg.id ? undefined : index.gatewayOf(segment)?.addresses4[0];
  return {
    segment: segment.name,
    vid: index.vidOf(segment),
    address: sheetAddress(segment.prefixes4, address),
    gateway: gateway === undefined ? null : formatAddress(gateway),
    // What it is asked for itself it does not ask itself.
    dns: asText(segment.dns.filter((one) => !isOwn(index, device, one))),
    time: asText(segment.time.filter((one) => !isOwn(index, device, one))),
  };
}

const isOwn = (index: PlanIndex, device: Device, address: Address): boolean =>
  index
    .interfacesOf(device.id)
    .some((leg) => [...leg.addresses4, ...leg.addresses6].includes(address as never));

/**
 * The VLANs that have to exist on a device: those of its ports, its own addresses and its wireless names, and
 * those on its own list.
 */
function vlansOf(index: PlanIndex, device: Device): SheetVlan[] {
  if (device.bridging !== "vlan") return [];
  const vids = new Set<number>(
    index.portsOf(device.id).flatMap((port) => [port.pvid ?? [], port.untagged, port.tagged].flat()),
  );
  const add = (segment: Segment | undefined) => {
    const vid = segment === undefined ? null : index.vidOf(segment);
    if (vid !== null) vids.add(vid);
  };
  for (const leg of index.interfacesOf(device.id))
    if (leg.port === null) add(index.plan.segment.get(leg.segment ?? ""));
  for (const ssid of ssidsOf(index, device)) segmentsOfSsid(index, ssid).forEach(add);
  return [...vids]
    .sort((a, b) => a - b)
    .map((vid) => {
      const vlan = index.vlanOf(device.domain, vid);
      const name = vlan?.name ?? `VLAN ${vid}`;
      return {
        vid,
        name: device.vlanNameLimit === null ? name : name.slice(0, device.vlanNameLimit),
        segment: index.segmentOn(device.domain, vid)?.name ?? "",
        purpose: vlan?.purpose ?? "segment",
      };
    });
}

function scopesOf(index: PlanIndex, device: Device): SheetScope[] {
  return [...index.plan.scope.values()]
    .filter((scope) => scope.serverDevice === device.id)
    .flatMap((scope): SheetScope[] => {
      const segment = index.plan.segment.get(scope.segment);
      if (segment === undefined) return [];
      const prefix = scope.family === 4 ? segment.prefixes4[0] : segment.prefixes6[0];
      const gateway = index.gatewayOf(segment)?.addresses4[0];
      const hosts =
        scope.family === 4
          ? index.hostsIn(segment.id).filter((host) => host.manner === "reserved" && host.ipv4 !== null)
          : [];
      return [
        {
          segment: segment.name,
          vid: index.vidOf(segment),
          subnet: prefix === undefined ? "" : formatPrefix(prefix),
          pools: scope.pools.map(formatRange),
          exclusions: scope.exclusions.map(formatRange),
          gateway: scope.family === 4 && gateway !== undefined ? formatAddress(gateway) : "",
          dns: asText(segment.dns),
          time: asText(segment.time),
          domainName: segment.domainName || index.plan.site.conventions.domainName,
          leaseSeconds: scope.leaseSeconds,
          options: scope.options,
          reservations: hosts.map((host) => ({
            name: host.name,
            mac: host.mac ?? "",
            address: host.ipv4 === null ? "" : formatAddress(host.ipv4),
          })),
        },
      ];
    })
    .sort((a, b) => (a.vid ?? 5000) - (b.vid ?? 5000));
}

function sheetPort(index: PlanIndex, device: Device, port: Port): SheetPort {
  const routed = (index.groups("interfacesByPort").get(port.id)?.length ?? 0) > 0;
  return {
    label: port.label,
    softwareName: port.softwareName,
    pluggedIn: pluggedIn(index, port),
    mode: routed ? "routed" : device.bridging === "vlan" ? modeOf(port) : "plain",
    enabled: port.enabled,
    pvid: port.pvid,
    untagged: port.untagged,
    tagged: port.tagged,
    admit: port.admit,
    ingressFilter: port.ingressFilter,
    speedMbps: port.speedMbps,
    poe: port.poeMw === 0 ? "" : poeStandard(port.poeMw),
    optic: port.optic === "none" ? "" : port.optic,
    lag: port.lag === null ? "" : nameOf(index, "lag", port.lag).replace(`${device.name} `, ""),
    guards: {
      ...port.guards,
      profile: port.guards.profile === null ? "" : nameOf(index, "signIn", port.guards.profile),
    },
    note: port.note,
    routed,
  };
}

function asksFromText(index: PlanIndex, { asksFrom }: Device): string | null {
  const [address] = asksFrom === null ? [] : (index.plan.interface.get(asksFrom)?.addresses4 ?? []);
  return address === undefined ? null : formatAddress(address);
}

const stationsAt = (index: PlanIndex, device: Device): DeviceData["stations"] =>
  device.kind !== "accessPoint"
    ? []
    : [...index.plan.host.values()]
        .flatMap(({ name, attachment }) =>
          attachment.at === "ssid" && attachment.accessPoint === device.id
            ? [{ name, ssid: nameOf(index, "ssid", attachment.ssid) }]
            : [],
        )
        .sort((a, b) => byNaturalText(a.name, b.name));

/** The data of a device's sheet. The plan holds no secret, so neither does this. */
export function deviceData(index: PlanIndex, device: Device): DeviceData {
  const { plan } = index;
  const ports = index.portsOf(device.id);
  const wayBack = new Set(
    [...plan.vlan.values()]
      .filter((vlan) => vlan.domain === device.domain && vlan.purpose === "wayBack")
      .map((vlan) => vlan.vid),
  );
  return {
    site: plan.site.name,
    name: device.name,
    hostName: asLabel(device.name),
    kind: device.kind,
    model: device.model,
    place: device.place,
    rackUnit: device.rackUnit,
    feed: device.feed,
    backupFeed: device.backupFeed,
    credentialsPlace: device.credentialsPlace,
    supportUntil: device.supportUntil,
    supportEnded: device.supportUntil !== null && index.today !== null && device.supportUntil < index.today,
    knowsVlans: device.bridging === "vlan",
    twoLists: device.abilities.lists === "two",
    tree: device.tree,
    bridgeMac: bridgeAddress(index, device),
    asksFrom: asksFromText(index, device),
    lines: sheetLines(index, device),
    stations: stationsAt(index, device),
    management: managementOf(index, device),
    vlans: vlansOf(index, device),
    lags: (index.groups("lagsByDevice").get(device.id) ?? []).map((lag) => ({
      name: lag.name,
      mode: lag.mode,
      ports: ports.filter((port) => port.lag === lag.id).map((port) => port.label),
    })),
    interfaces: index
      .interfacesOf(device.id)
      .map((leg) => sheetInterface(index, leg))
      .sort((a, b) => (a.vid ?? 5000) - (b.vid ?? 5000)),
    scopes: scopesOf(index, device),
    ssids: ssidsOf(index, device).map((ssid) => {
      const segments = segmentsOfSsid(index, ssid);
      return {
        name: ssid.name,
        segments: segments.map((one) => one.name),
        vids: segments.flatMap((one) => index.vidOf(one) ?? []),
        security: SECURITY_FACTS[ssid.security].words,
        hidden: ssid.hidden,
        isolation: ssid.isolation,
        bands: ssid.bands,
      };
    }),
    radios: (index.groups("radiosByDevice").get(device.id) ?? [])
      .map(({ band, enabled, channel, widthMhz, power }) => ({ band, enabled, channel, widthMhz, power }))
      .sort((a, b) => Number(a.band) - Number(b.band)),
    ports: ports.map((port) => sheetPort(index, device, port)),
    wayBack: ports
      .filter((port) => port.pvid !== null && wayBack.has(port.pvid) && port.enabled)
      .map((port) => port.label),
  };
}
