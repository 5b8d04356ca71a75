import { formatAddress } from "../address";
import { byNaturalText } from "../kernel";
import { hasRadios, isFilter, keepsState, nameOf, ssidsOf, type Device, type PlanIndex } from "../plan";
import { asLabel, firstContact, nameOnDevice } from "../planners";
import { bridgeAddress, configurationDigest } from "../spanning-tree";
import { administrationOn, identityOf } from "./sheet-baseline";
import { failoverOn, protectionsOn, tunnelsOn } from "./sheet-lines";
import { managementOf, sheetInterface, sheetLines } from "./sheet-addresses";
import { forwardsOn, routesOn, rulesOn, translationsOn } from "./sheet-gateway";
import { sheetPort, sheetSsid, vlansOf } from "./sheet-ports";
import { scopesOf } from "./sheet-scopes";
import { administratorsOn, signInsOn } from "./sheet-sign-in";
import type { DeviceData } from "./sheet-types";

function asksFromText(index: PlanIndex, { asksFrom }: Device): string | null {
  const [address] = asksFrom === null ? [] : (index.plan.interface.get(asksFrom)?.addresses4 ?? []);
  return address === undefined ? null : formatAddress(address);
}

const stationsAt = (index: PlanIndex, device: Device): DeviceData["stations"] =>
  !hasRadios(device)
    ? []
    : [...index.plan.host.values()]
        .flatMap(({ name, attachment }) =>
          attachment.at === "ssid" && attachment.accessPoint === device.id
            ? [{ name, ssid: nameOf(index, "ssid", attachment.ssid) }]
            : [],
        )
        .sort((a, b) => byNaturalText(a.name, b.name));

/** The ports that are in a VLAN for rescue, by their labels. */
function rescuePorts(index: PlanIndex, { id, domain }: Device): string[] {
  const vids = new Set(
    [...index.plan.vlan.values()]
      .filter((vlan) => vlan.domain === domain && vlan.purpose === "wayBack")
      .map(({ vid }) => vid),
  );
  return index
    .portsOf(id)
    .filter(({ pvid, enabled }) => pvid !== null && vids.has(pvid) && enabled)
    .map(({ label }) => label);
}

/** The data of a device's sheet. The plan holds no secret, so neither does this. */
export const deviceData = (index: PlanIndex, device: Device): DeviceData => ({
  ...dataWithoutRules(index, device),
  rules: rulesOn(index, device),
});

/** The same without the rules that its walls need: those are worked out from all walls at once. */
export function dataWithoutRules(index: PlanIndex, device: Device): Omit<DeviceData, "rules"> {
  const { plan } = index;
  const ports = index.portsOf(device.id);
  return {
    site: plan.site.name,
    name: device.name,
    hostName: asLabel(nameOnDevice(index, device)),
    kind: device.kind,
    model: device.model,
    place: device.place,
    rackUnit: device.rackUnit,
    feed: device.feed,
    backupFeed: device.backupFeed,
    credentialsPlace: device.credentialsPlace,
    identity: identityOf(device),
    administration: administrationOn(index, device),
    supportUntil: device.supportUntil,
    supportEnded: device.supportUntil !== null && index.today !== null && device.supportUntil < index.today,
    knowsVlans: device.bridging === "vlan",
    twoLists: device.abilities.lists === "two",
    tree: device.tree,
    digest: device.tree.kind === "multiple" ? configurationDigest(device) : "",
    bridgeMac: bridgeAddress(index, device),
    asksFrom: asksFromText(index, device),
    lines: sheetLines(index, device),
    failover: failoverOn(index, device),
    tunnels: tunnelsOn(index, device),
    protections: protectionsOn(index, device),
    signIns: signInsOn(index, device),
    outOfBox: firstContact(index, device).map(([setting, value]) => ({ setting, value })),
    administrators: administratorsOn(index, device),
    routes: routesOn(device),
    translations: translationsOn(index, device),
    forwards: forwardsOn(index, device),
    filter: filterOn(device),
    tells: device.repeatsDiscovery.map((id) => nameOf(index, "segment", id)).sort(byNaturalText),
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
    ssids: ssidsOf(index, device).map((ssid) => sheetSsid(index, ssid)),
    radios: (index.groups("radiosByDevice").get(device.id) ?? [])
      .map(({ band, enabled, channel, widthMhz, power }) => ({ band, enabled, channel, widthMhz, power }))
      .sort((a, b) => Number(a.band) - Number(b.band)),
    ports: ports.map((port) => sheetPort(index, device, port)),
    wayBack: rescuePorts(index, device),
  };
}

function filterOn(device: Device): DeviceData["filter"] {
  const { logsRefused, hostsOpen } = device.filter;
  return isFilter(device) ? { remembers: keepsState(device), logsRefused, hostsOpen } : null;
}
