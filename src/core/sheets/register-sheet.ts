import { ascending, byText } from "../kernel";
import { formatAddress } from "../address";
import { nameOf, type EntityOf, type Host, type Interface, type PlanIndex } from "../plan";
import { HOST_KIND_WORDS, MANNER_WORDS, type HostColumn } from "../planners";

/** A row of the register: an end device, or a leg of the gear, which is edited with its device. */
export type RegisterRow =
  { readonly row: "host"; readonly entity: Host } | { readonly row: "interface"; readonly entity: Interface };

const addressOf = ({ row, entity }: RegisterRow): number | bigint | null =>
  row === "host" ? (entity.ipv4 ?? entity.ipv6) : (entity.addresses4[0] ?? entity.addresses6[0] ?? null);

/** Legs and hosts of a segment (all of the site when null) by address; those without one follow by name. */
export function registerRows(index: PlanIndex, segment: string | null): RegisterRow[] {
  const legs =
    segment === null
      ? [...index.plan.interface.values()].filter((leg) => leg.segment !== null)
      : index.interfacesIn(segment);
  const hosts: readonly Host[] = segment === null ? [...index.plan.host.values()] : index.hostsIn(segment);
  const rows: RegisterRow[] = [
    ...legs.map((entity) => ({ row: "interface" as const, entity })),
    ...hosts.map((entity) => ({ row: "host" as const, entity })),
  ];
  const keyed = rows.map((row) => ({
    row,
    address: addressOf(row),
    family: typeof addressOf(row) === "bigint" ? 1 : 0,
  }));
  keyed.sort((a, b) => {
    if (a.address === null || b.address === null) {
      return (
        Number(a.address === null) - Number(b.address === null) ||
        byText(a.row.entity.name, b.row.entity.name)
      );
    }
    return a.family - b.family || ascending(a.address, b.address);
  });
  return keyed.map(({ row }) => row);
}

/** "Upper switch 13", "Fennel Staff" or "behind Phone 3": where a host is attached, as it can be typed in. */
function attachmentText(index: PlanIndex, { attachment }: Host): string {
  switch (attachment.at) {
    case "port": {
      const port = index.plan.port.get(attachment.port);
      return port === undefined ? "" : `${index.plan.device.get(port.device)?.name ?? ""} ${port.label}`;
    }
    case "ssid":
      return (
        `${index.plan.ssid.get(attachment.ssid)?.name ?? ""}` +
        (attachment.accessPoint === null ? "" : ` at ${nameOf(index, "device", attachment.accessPoint)}`)
      );
    case "behind":
      return `behind ${index.plan.host.get(attachment.host)?.name ?? ""}`;
    case "unplaced":
      return "";
  }
}

/** The text of a host's cell, as it is shown and as it can be typed in again. */
export function hostCellText(index: PlanIndex, host: Host, column: HostColumn): string {
  switch (column) {
    case "address":
      return host.ipv4 === null ? "" : formatAddress(host.ipv4);
    case "name":
      return host.name;
    case "kind":
      return HOST_KIND_WORDS[host.kind];
    case "segment":
      return host.segment === null ? "" : (index.plan.segment.get(host.segment)?.name ?? "");
    case "how":
      return MANNER_WORDS[host.manner];
    case "mac":
      return host.mac ?? "";
    case "port":
      return attachmentText(index, host);
    case "place":
      return host.place;
  }
}

/** The same for a leg of the gear: only read, since it is edited with its device or segment. */
export function legCellText(index: PlanIndex, leg: Interface, column: HostColumn): string {
  const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
  switch (column) {
    case "address":
      return leg.addresses4[0] === undefined ? "" : formatAddress(leg.addresses4[0]);
    case "name":
      return nameOf(index, "device", leg.device);
    case "kind":
      return segment?.gatewayInterface === leg.id ? "gateway" : kindWord(index.plan.device.get(leg.device));
    case "segment":
      return segment?.name ?? "";
    case "how":
      return "static";
    case "mac":
      return leg.mac ?? "";
    case "port":
      return leg.port === null ? "" : nameOf(index, "port", leg.port);
    case "place":
      return index.plan.device.get(leg.device)?.place ?? "";
  }
}

export const DEVICE_KIND_WORDS = {
  gateway: "gateway",
  firewall: "firewall",
  switch: "switch",
  accessPoint: "access point",
  providerBox: "provider's box",
  converter: "media converter",
  server: "server",
} as const satisfies Record<EntityOf<"device">["kind"], string>;

const kindWord = (device: EntityOf<"device"> | undefined): string =>
  device === undefined ? "" : DEVICE_KIND_WORDS[device.kind];
