import { whoGetsIn } from "../guards";
import { isAdministered, type PlanIndex } from "../plan";
import { baselineTable, leafletTable, windowTable } from "../planners";
import {
  addressRegisterTable,
  answerTable,
  bindingTable,
  cableScheduleTable,
  conduitTable,
  devicesInOrder,
  doorTable,
  forwardTable,
  gearTable,
  lineTable,
  portScheduleTable,
  radioTable,
  routeTable,
  ruleTable,
  scopeTable,
  segmentTable,
  serviceTable,
  signInTable,
  ssidTable,
  tunnelTable,
  vlanTable,
  whoTable,
  wishTable,
  zoneTable,
} from "../sheets";
import { reservationTable } from "./zone-file";

/** A table of a site, as it leaves for a spreadsheet. */
export interface SiteTable {
  readonly title: string;
  /** The end of its file's name. */
  readonly file: string;
  readonly about: string;
  /** The columns, from 0, that say which row it is: what two states of the table are laid together by. */
  readonly key: readonly number[];
  /** Rows of texts, heads first. */
  readonly make: (index: PlanIndex) => string[][];
}

/** The tables of a site, in the order in which a job comes upon them. */
export const SITE_TABLES: readonly SiteTable[] = [
  {
    title: "Segments",
    file: "segments.csv",
    key: [1],
    about: "Every segment with its VLAN, subnets, gateway, name and time servers.",
    make: segmentTable,
  },
  {
    title: "VLANs",
    file: "vlans.csv",
    key: [2, 0],
    about: "Every VLAN of every VLAN domain, with the segment that it carries.",
    make: vlanTable,
  },
  {
    title: "DHCP scopes",
    file: "scopes.csv",
    key: [0, 1],
    about: "What each DHCP server gives: pools, what is left out of them, lease, options.",
    make: scopeTable,
  },
  {
    title: "Reservations",
    file: "reservations.csv",
    key: [5],
    about: "What each DHCP server has to be told: address, MAC, host name.",
    make: reservationTable,
  },
  {
    title: "Address register",
    file: "addresses.csv",
    key: [1, 3],
    about: "Every device with its address, how it gets it, its MAC and where it is plugged in.",
    make: addressRegisterTable,
  },
  {
    title: "Gear register",
    file: "gear.csv",
    key: [0],
    about:
      "Every device: model, place, feeds, its own addresses, " +
      "bridge MAC, support date, where its credentials are kept.",
    make: gearTable,
  },
  {
    title: "Leaflets",
    file: "leaflets.csv",
    key: [0],
    about: "What the leaflet of each model says: first address, times, names; to be pasted again.",
    make: leafletTable,
  },
  {
    title: "Baseline",
    file: "baseline.csv",
    key: [0],
    about:
      "How every device is administered, what it is and runs: ways in, servers, serial numbers, software.",
    make: (index) => baselineTable(index, devicesInOrder(index).filter(isAdministered)),
  },
  {
    title: "Port schedule",
    file: "ports.csv",
    key: [0, 1],
    about: "Every port of every device: what is plugged in, its VLANs, power and guards.",
    make: portScheduleTable,
  },
  {
    title: "Cable schedule",
    file: "cables.csv",
    key: [1, 3],
    about:
      "Every cable between gear: label, both ends, optics, kind, length, panel " +
      "and socket. What is entered on each device is on Hardware, under Sheets.",
    make: cableScheduleTable,
  },
  {
    title: "Wireless names",
    file: "wireless-names.csv",
    key: [0],
    about: "Every wireless name: where it leads, its security, where it is offered.",
    make: ssidTable,
  },
  {
    title: "Access points",
    file: "access-points.csv",
    key: [0, 2],
    about: "Every radio of every access point: channel, width, power, wireless names.",
    make: radioTable,
  },
  {
    title: "Lines",
    file: "lines.csv",
    key: [0],
    about:
      "Every internet line: where it ends, outside address and " +
      "mask, next hop, name servers, what the provider wants.",
    make: lineTable,
  },
  {
    title: "Routes",
    file: "routes.csv",
    key: [0, 1],
    about: "Every route that is entered by hand, device by device.",
    make: routeTable,
  },
  {
    title: "Port forwards",
    file: "port-forwards.csv",
    key: [0],
    about: "Every port forward: line and port outside, where it leads, who may use it and until when.",
    make: forwardTable,
  },
  {
    title: "Tunnels",
    file: "tunnels.csv",
    key: [0],
    about: "Every tunnel: its far end, where it is answered, where it ends.",
    make: tunnelTable,
  },
  {
    title: "Ways in",
    file: "ways-in.csv",
    key: [0],
    about: "Who wants to reach what from outside, and how each way fares, tried with a packet.",
    make: wishTable,
  },
  {
    title: "Zones",
    file: "zones.csv",
    key: [0],
    about: "Every zone with its segments, its level of control and its target security level.",
    make: zoneTable,
  },
  {
    title: "Doors",
    file: "doors.csv",
    key: [0, 1, 2],
    about:
      "Every door between zones and every exception: what it lets through, when, who answers for it and why.",
    make: doorTable,
  },
  {
    title: "Conduits",
    file: "conduits.csv",
    key: [0],
    about: "Every conduit with its target level, who answers for it, and the doors that lead by it.",
    make: conduitTable,
  },
  {
    title: "Services",
    file: "services.csv",
    key: [0],
    about: "The services that the site has beside those of the catalogue, with all that each stands for.",
    make: serviceTable,
  },
  {
    title: "Rules",
    file: "rules.csv",
    key: [0, 1, 2],
    about:
      "For every device that filters: the rules that its walls need, in their order, and those that stand " +
      "on it. Read again on Walls, under Read a rule list.",
    make: ruleTable,
  },
  {
    title: "Sign-in profiles",
    file: "sign-in-profiles.csv",
    key: [0],
    about: "Every sign-in profile with its servers, stage, timers and the VLANs that it gives.",
    make: signInTable,
  },
  {
    title: "Who gets in",
    file: "who-gets-in.csv",
    key: [0, 1, 3],
    about:
      "Every port with sign-in and what is planned there: with all servers, without the first, without any.",
    make: (index) => whoTable(index, whoGetsIn(index)),
  },
  {
    title: "Bindings",
    file: "bindings.csv",
    key: [0, 1, 2],
    about:
      "Who is at which switch port with which MAC address, address, VLAN and lease, as snooping learns it.",
    make: bindingTable,
  },
  {
    title: "Answers of the sign-in server",
    file: "sign-in-answers.csv",
    key: [0],
    about: "Each device with its MAC address and the attributes that put it into its VLAN (RFC 3580).",
    make: answerTable,
  },
  {
    title: "Windows",
    file: "windows.csv",
    key: [0],
    about: "When work may stop whom, with permits and who agrees first.",
    make: windowTable,
  },
];
