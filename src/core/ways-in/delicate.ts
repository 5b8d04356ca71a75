import type { Host, Service } from "../plan";

/** What should not be asked by everybody on the internet. */
const DELICATE: ReadonlySet<Host["kind"]> = new Set([
  "camera",
  "recorder",
  "doorController",
  "controller",
  "operatorPanel",
  "drive",
  "ioIsland",
  "printer",
]);
/** Where gear is managed: SSH, Telnet, remote desktop, SNMP. */
const MANAGING = [22, 23, 3389, 161];

/** Whether ports are such that gear is managed by them. */
const areManaging = (ports: Service["ports"]): boolean =>
  ports.some(([low, high]) => MANAGING.some((port) => low <= port && port <= high));

/** Whether a device, or one service of it, is nothing for the open internet. */
export const isDelicate = (host: Host | undefined, ports: Service["ports"]): boolean =>
  areManaging(ports) || (host !== undefined && DELICATE.has(host.kind));
