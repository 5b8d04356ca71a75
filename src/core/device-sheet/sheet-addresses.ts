import {
  containsAddress,
  formatAddress,
  netmaskText,
  prefixOf,
  type Address,
  type Ipv4,
  type Prefix,
} from "../address";
import { byNaturalText } from "../kernel";
import type { Device, Interface, Line, PlanIndex, Segment } from "../plan";
import { classText } from "../policy";
import type { DeviceData, SheetAddress, SheetInterface, SheetLine } from "./sheet-types";

/** An address with its prefix length and mask; as a host's own (/32, /128) where no prefix holds it. */
function sheetAddress(prefixes: readonly Prefix[], address: Address): SheetAddress {
  const prefix = prefixes.find((prefix) => containsAddress(prefix, address));
  const [length, mask] =
    prefix === undefined
      ? [typeof address === "number" ? 32 : 128, ""]
      : [prefix.length, prefix.family === 4 ? netmaskText(prefix) : ""];
  return { address: formatAddress(address), prefixLength: length, mask };
}

/** A leg as it is entered. */
export function sheetInterface(index: PlanIndex, leg: Interface): SheetInterface {
  const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
  const vid = segment === undefined ? null : index.vidOf(segment);
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
    mac: leg.mac ?? "",
    segment: segment?.name ?? "",
    vid,
    line: leg.line === null ? "" : (index.plan.line.get(leg.line)?.name ?? ""),
    port: leg.port === null ? "" : (index.plan.port.get(leg.port)?.label ?? ""),
    addresses4: of(leg.addresses4),
    addresses6: of(leg.addresses6),
    relayTo: leg.relayTo === null ? "" : formatAddress(leg.relayTo),
    marks: vid === null ? marksOf(segment) : "",
  };
}

const marksOf = (segment: Segment | undefined): string =>
  segment === undefined ? "" : classText(segment.trafficClass);

/** The prefix that an outside address lies in, as far as the line's length is known. */
function outsidePrefix(line: Line | undefined, address: Address): Prefix[] {
  const length = typeof address === "number" ? line?.length4 : line?.length6;
  const prefix = length === null || length === undefined ? null : prefixOf(address, length);
  return prefix === null ? [] : [prefix];
}

/** The internet lines that end at a device, by name. */
export function sheetLines(index: PlanIndex, device: Device): SheetLine[] {
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
          addresses: [...addresses4, ...addresses6].map((sheetAddress) => sheetAddress.address),
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

export const asText = (addresses: readonly Address[]): string[] => addresses.map(formatAddress);

/** Where a device is managed; null without an address of its own. */
export function managementOf(index: PlanIndex, device: Device): DeviceData["management"] {
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
    dns: asText(segment.dns.filter((address) => !isOwn(index, device, address))),
    time: asText(segment.time.filter((address) => !isOwn(index, device, address))),
  };
}

const isOwn = (index: PlanIndex, device: Device, address: Address): boolean =>
  index
    .interfacesOf(device.id)
    .some((leg) => [...leg.addresses4, ...leg.addresses6].includes(address as never));
