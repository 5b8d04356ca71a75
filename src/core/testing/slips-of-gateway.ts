import { must } from "../kernel";
import { BLANK_SEGMENT } from "../plan";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";
import {
  find,
  tunnelIn,
  watched,
  pinned,
  routeOn,
  phonesAtHome,
  legOf,
  routingSwitch,
  fixedHost,
  forwardTo,
} from "./slips-at-home";
import { ip, net } from "./written";

/** A slip for each check of lines, forwards, tunnels and routes. */
export const SLIPS_OF_GATEWAY: Slip[] = [
  [
    "route-next-hop-lost",
    (d) => routeOn(d, "10.9.0.0/16", "10.8.0.1"),
    /Gateway has a route for 10\.9\.0\.0\/16 by 10\.8\.0\.1, which lies in no network/,
  ],
  [
    "route-hides-own",
    (d) => routeOn(d, "172.19.30.64/26", "172.19.20.7"),
    /The route for 172\.19\.30\.64\/26 on Gateway leads away a part of Studio/,
  ],
  [
    "routes-in-circle",
    (d) => routeOn(d, "10.9.0.0/16", routingSwitch(d)),
    /What is for 10\.9\.0\.0\/16 goes round between Gateway and Hall switch/,
  ],
  [
    "no-way-back",
    (d) => {
      const via = routingSwitch(d);
      const hall = find(d, "device", "Hall switch").id;
      const [lab, leg] = [testId("segment", "lab"), testId("interface", "lab")];
      d.put("segment", {
        ...BLANK_SEGMENT,
        id: lab,
        zone: find(d, "segment", "Studio").zone,
        vlan: null,
        name: "Lab",
        mark: "LB",
        tape: { base: "white", tracer: null },
        prefixes4: [net("10.9.0.0/24")],
        gatewayInterface: leg,
      });
      d.put("interface", { ...legOf(d, "Hall switch"), id: leg, segment: lab, addresses4: [ip("10.9.0.1")] });
      d.patch("device", hall, { defaultRoute: "none" });
      routeOn(d, "10.9.0.0/16", via);
    },
    new RegExp(
      "What [A-Z].*, Household, .* ask arrives in Lab, but the answers don't come back: " +
        "Hall switch has no way to it\\.",
    ),
  ],
  [
    "calls-do-not-fit",
    (d) => {
      d.put("line", {
        ...find(d, "line", "Mobile line"),
        id: testId("line", "thin"),
        name: "Thin",
        upMbps: 1,
      });
      phonesAtHome(d, 12);
    },
    /Calls of all phones at once don't fit Thin: \d+ phones × 0\.1 Mbit\/s = [\d.]+ of 1 Mbit\/s up\./,
  ],
  [
    "priority-without-tag",
    (d) => d.patch("line", find(d, "line", "Mobile line").id, { marks: { kept: true, voicePriority: 5 } }),
    /Calls have to bear priority 5 on Mobile line, which bears no tag/,
  ],
  [
    "marks-of-anybody",
    (d) => {
      const plugged = must(
        d.all("host").find(({ attachment }) => attachment.at === "port"),
        "somebody at a port",
      );
      const port = d.need("port", plugged.attachment.at === "port" ? plugged.attachment.port : "");
      d.patch("port", port.id, { guards: { ...port.guards, trustsMarks: true } });
    },
    /keeps the marks of .*, which is no phone/,
  ],
  [
    "calls-like-others",
    (d) => phonesAtHome(d, 1),
    /There are phones in Household, and what they send is treated like any other/,
  ],
  [
    "forward-behind-carrier",
    (d) =>
      forwardTo(d, fixedHost(d), {
        line: find(d, "line", "Mobile line").id,
        sources: [net("203.0.113.0/24")],
        ports: [9443, 9443],
      }),
    /Nothing comes in by Mobile line, whose carrier translates: the forward Kiln page can't work there/,
  ],
  [
    "forward-host-moves",
    (d) => {
      const host = d.all("host").find(({ manner, kind }) => manner === "dynamic" && kind === "laptop");
      forwardTo(d, must(host, "a laptop"), {});
    },
    /gets its address by DHCP without a reservation: the forward Kiln page will lead to something else/,
  ],
  [
    "forward-ports-clash",
    (d) => {
      const host = fixedHost(d);
      forwardTo(d, host, { sources: [net("203.0.113.0/24")] });
      forwardTo(d, host, { name: "Second page", sources: [net("203.0.113.0/24")], ports: [8440, 8450] });
    },
    /Kiln page and Second page both want TCP 8440 to 8450 on Fibre line/,
  ],
  [
    "forward-exposes",
    (d) => forwardTo(d, fixedHost(d), { toPort: 22 }),
    /can be asked by anybody on the internet, by the forward Kiln page \(TCP 8443\)/,
  ],
  [
    "forward-over",
    (d) => forwardTo(d, fixedHost(d), { until: "2026-10-31" }),
    /The forward Kiln page was to hold until 2026-10-31/,
  ],
  [
    "line-shares",
    (d) => d.patch("line", find(d, "line", "Fibre line").id, { share: 60 }),
    /The shares of Fibre line \(60 %\) add up to 60 %\./,
  ],
  [
    "line-loss-unseen",
    (d) => watched(d, { by: "target", targets: [] }),
    /Fibre line is watched by targets, and none is named\./,
  ],
  [
    "line-target-inside",
    (d) => watched(d, { by: "target", targets: [ip("172.19.20.5"), ip("198.51.100.53")] }),
    /Fibre line is watched by 172\.19\.20\.5, which is Household: it answers without the line\./,
  ],
  [
    "line-pins-clash",
    (d) => {
      for (const name of ["Fibre line", "Mobile line"])
        pinned(d, name, { what: "segment", segment: find(d, "segment", "Studio").id, orElse: "next" });
    },
    /Studio is pinned to Fibre line and to Mobile line\./,
  ],
  [
    "line-pin-moves",
    (d) => pinned(d, "Mobile line", { what: "host", host: find(d, "host", "tablet").id, orElse: "stays" }),
    /tablet is pinned to Mobile line and gets its address by DHCP without a reservation\./,
  ],
  [
    "line-without-name",
    (d) => {
      const { id, dynamicName } = find(d, "line", "Fibre line");
      d.patch("line", id, { dynamicName: { ...dynamicName, name: "" } });
    },
    /Fibre line gets its outside address by login, things are forwarded from it, and no name follows it\./,
  ],
  [
    "wish-cannot",
    (d) =>
      d.put("wish", {
        id: testId("wish", "Bell"),
        name: "Bell",
        host: find(d, "host", "door-bell").id,
        service: { name: "video", protocol: "tcp", ports: [[554, 554]] },
        from: [],
        way: "vpn",
        note: "",
      }),
    /Bell is not reached by VPN: No tunnel called By VPN ends where Fibre line does\./,
  ],
  [
    "tunnel-without-end",
    (d) => d.patch("segment", tunnelIn(d), { gatewayInterface: null }),
    /The tunnel Family abroad ends at no device\./,
  ],
  [
    "tunnel-port-forwarded",
    (d) => {
      tunnelIn(d);
      forwardTo(d, fixedHost(d), { protocol: "udp", ports: [51_000, 52_000] });
    },
    /The tunnel Family abroad is answered at UDP 51900, which the forward Kiln page sends on/,
  ],
];
