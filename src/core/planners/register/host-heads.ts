import type { HostColumn } from "./host-cell";

/**
 * What a spreadsheet calls the columns of a table of devices, in small letters: for a paste into the register
 * and for a file taken in.
 */
export const HOST_HEADS: Readonly<Record<HostColumn, readonly string[]>> = {
  name: ["name", "device", "host", "hostname", "host name", "device name"],
  kind: ["kind", "type", "device type", "category"],
  segment: ["segment", "network", "vlan", "subnet"],
  mac: ["mac", "mac address", "physical address", "hardware address", "ethernet"],
  address: ["address", "ip", "ip address", "ipv4", "ipv4 address"],
  how: ["how", "manner", "assignment", "method", "fixed by"],
  port: ["port", "plugged into", "plugged in", "switch port", "connected to", "socket"],
  place: ["place", "room", "location", "where"],
};
