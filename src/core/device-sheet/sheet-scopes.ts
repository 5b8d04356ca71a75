import { formatAddress, formatPrefix, formatRange } from "../address";
import type { Device, PlanIndex } from "../plan";
import { asText } from "./sheet-addresses";
import type { SheetScope } from "./sheet-types";

/** The scopes that a device serves, by VLAN. */
export function scopesOf(index: PlanIndex, device: Device): SheetScope[] {
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
