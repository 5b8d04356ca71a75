import { must } from "../kernel";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";
import { find, exceptionIn, routingSwitch, listWith, routesBetween } from "./slips-at-home";

/** A slip for each check of lists of rules and exceptions. */
export const SLIPS_OF_RULES: Slip[] = [
  [
    "past-the-walls",
    (d) => {
      routesBetween(d, "Hall switch", ["Lodger", "Visitors"]);
    },
    /Hall switch routes between (Visitors and Lodger|Lodger and Visitors) without a filter/,
  ],
  [
    "management-reachable",
    (d) => {
      d.put("wall", {
        id: testId("wall", "slip"),
        from: { at: "zone", zone: find(d, "segment", "Visitors").zone },
        to: { at: "gateway" },
        door: "open",
        services: [],
        reason: "",
        conduit: null,
      });
    },
    /Visitors has a door to the gateway's own pages/,
  ],
  [
    "hosts-open-ports",
    (d) => {
      const gateway = find(d, "device", "Gateway");
      d.patch("device", gateway.id, { filter: { ...gateway.filter, hostsOpen: true } });
    },
    /Gateway lets hosts open ports on it for themselves/,
  ],
  [
    "list-without-memory",
    (d) => {
      const hall = find(d, "device", "Hall switch");
      routingSwitch(d);
      d.patch("device", hall.id, { filter: { ...hall.filter, list: "planned" } });
      for (const name of ["Household", "Studio"]) {
        const known = must(d.get("interface", find(d, "segment", name).gatewayInterface ?? ""), name);
        const leg = { ...known, id: testId("interface", `hall ${name}`), device: hall.id };
        d.put("interface", leg);
        d.patch("segment", find(d, "segment", name).id, { gatewayInterface: leg.id });
      }
    },
    /Hall switch remembers nothing of what it let through: \d+ rules let answers back/,
  ],
  [
    "exception-over",
    (d) => exceptionIn(d, { lastDay: "2026-10-31" }),
    /The exception Lodger's kiln held until 2026-10-31: take it off the device/,
  ],
  [
    "exception-host-moves",
    (d) => exceptionIn(d, { from: { at: "host", host: find(d, "host", "tablet").id } }),
    /tablet gets its address by DHCP without a reservation, and the exception Lodger's kiln is for it alone/,
  ],
  [
    "exception-needless",
    (d) => exceptionIn(d, { to: { at: "internet" } }),
    /Everything that the exception Lodger's kiln is for passes the walls anyway/,
  ],
  [
    "straight-to-cell",
    (d) => {
      d.patch("segment", find(d, "segment", "Studio").id, { purpose: "cell" });
    },
    /Home gets straight to the cell Studio by https; let it end in a plant DMZ\./,
  ],
  [
    "safety-linked",
    (d) => d.patch("segment", find(d, "segment", "Visitors").id, { purpose: "safety" }),
    /Visitors is a safety network, and Gateway \(Visitors\) links it to others\./,
  ],
  [
    "vendor-stays",
    (d) => {
      d.patch("segment", find(d, "segment", "Lodger").id, { purpose: "vendor" });
      exceptionIn(d, {});
    },
    /The exception Lodger's kiln lets a vendor in at all hours, without a last day/,
  ],
  [
    "list-lets-more",
    (d) => listWith(d, 1, ["Lodger", "Household", "tcp 22", "accept"]),
    /Lodger to Home gets more than the wall means: ssh\./,
  ],
  [
    "list-stops-more",
    (d) => listWith(d, 1, ["Lodger", "Internet", "tcp 25, udp 4500", "drop"]),
    /The list on Gateway stops Lodger to Internet: TCP 25, UDP 4500\./,
  ],
  [
    "rule-never-reached",
    (d) => listWith(d, 900_000, ["Lodger", "Internet", "https", "drop"]),
    /Rule 9 of Gateway is never reached: rule 5 before it does otherwise\./,
  ],
  [
    "rule-can-go",
    (d) => listWith(d, 900_000, ["any", "any", "any", "drop"]),
    /Rule 9 of Gateway can go: without it every packet gets the same\./,
  ],
  [
    "rules-mergeable",
    (d) => listWith(d, 900_000, ["Home", "Studio", "ssh", "accept", "firing nights"]),
    /Rule \d of Gateway and rule \d of Gateway differ in their services only: they can be one\./,
  ],
];
