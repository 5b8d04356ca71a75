import { parseMac } from "../address";
import { must } from "../kernel";
import type { Device } from "../plan";
import { renumber } from "../planners";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";
import { find, portOf, scopeOf, range, createdOn, static4 } from "./slips-at-home";
import { ip, net, net6 } from "./written";

/** A slip for each check of addresses, subnets, DHCP and names. */
export const SLIPS_OF_ADDRESSING: Slip[] = [
  [
    "subnets-overlap",
    (d) => d.patch("segment", find(d, "segment", "Studio").id, { prefixes4: [net("172.19.20.128/25")] }),
    /Studio \(172\.19\.20\.128\/25\) lies in the same addresses as Household \(172\.19\.20\.0\/24\)/,
  ],
  [
    "subnet-meets-kept-clear",
    (d) =>
      d.patch("site", d.plan.site.id, {
        keepClear: [{ prefix: net("172.19.60.0/22"), reason: "the neighbour's tunnel" }],
      }),
    /Visitors \(172\.19\.60\.0\/24\) meets 172\.19\.60\.0\/22.*the neighbour's tunnel/,
  ],
  [
    "gateway-not-usable",
    (d) =>
      d.patch("interface", must(find(d, "segment", "Lodger").gatewayInterface, "a gateway"), {
        addresses4: [ip("172.19.40.255")],
      }),
    /gateway of Lodger, 172\.19\.40\.255, is the broadcast address/,
  ],
  [
    "gateway-missing",
    (d) => d.patch("segment", find(d, "segment", "Studio").id, { gatewayInterface: null }),
    /Studio has no gateway/,
  ],
  [
    "pool-outside-subnet",
    (d) => d.patch("scope", scopeOf(d, "Studio").id, { pools: [range("172.19.30.200", "172.19.31.20")] }),
    /pool of Studio, 172\.19\.30\.200 to 172\.19\.31\.20/,
  ],
  [
    "pool-over-gateway",
    (d) => d.patch("scope", scopeOf(d, "Studio").id, { pools: [range("172.19.30.1", "172.19.30.60")] }),
    /\.1 to \.60, count 60, holds the gateway/,
  ],
  [
    "pool-too-small",
    (d) => d.patch("segment", find(d, "segment", "Visitors").id, { planned: 101 }),
    /Visitors: 101 devices.*has 100 to lease. Number 101 gets none/,
  ],
  [
    "no-address-server",
    (d) => d.remove("scope", scopeOf(d, "Household").id),
    /5 devices in Household ask for an address/,
  ],
  [
    "two-address-servers",
    (d) =>
      d.put("scope", {
        ...scopeOf(d, "Studio"),
        id: testId("scope", "second"),
        serverDevice: find(d, "device", "Hall switch").id,
        pools: [range("172.19.30.120", "172.19.30.130")],
      }),
    /both give addresses in Studio/,
  ],
  [
    "router-without-address6",
    (d) =>
      d.patch("segment", find(d, "segment", "Household").id, {
        prefixes6: [net6("fd24:1:2:20::/64")],
        advertise: "slaac",
      }),
    /Household advertises fd24:1:2:20::\/64, and its gateway has no address in it/,
  ],
  [
    "names-behind-wall",
    (d) => d.patch("segment", find(d, "segment", "Visitors").id, { dns: [ip("172.19.20.9")] }),
    /Visitors is told to ask 172\.19\.20\.9.*wall to Household lets no DNS through/,
  ],
  [
    "static-in-pool",
    (d) =>
      d.patch("host", find(d, "host", "kiln-controller").id, { manner: "typed", ipv4: ip("172.19.30.60") }),
    /\.60 is static on kiln-controller/,
  ],
  [
    "host-outside-subnet",
    (d) => d.patch("host", find(d, "host", "kiln-controller").id, { ipv4: ip("172.19.31.60") }),
    /kiln-controller has 172\.19\.31\.60/,
  ],
  [
    "address-twice",
    (d) => d.patch("host", find(d, "host", "heating-controller").id, { ipv4: ip("172.19.50.21") }),
    /172\.19\.50\.21 belongs to .*door-bell.* at the same time/,
  ],
  [
    "mac-twice",
    (d) => d.patch("host", find(d, "host", "tablet").id, { mac: find(d, "host", "study-pc").mac }),
    /stands at .*(tablet|study-pc) and (tablet|study-pc)/,
  ],
  [
    "reserved-space-inside",
    (d) => d.patch("segment", find(d, "segment", "Gadgets").id, { prefixes6: [net6("fe80::/64")] }),
    /Gadgets has fe80::\/64, which is set aside for devices that got no address/,
  ],
  [
    "public-space-inside",
    (d) =>
      void renumber(d, [
        {
          segment: find(d, "segment", "Visitors").id,
          from: net("172.19.60.0/24"),
          to: net("172.119.60.0/24"),
        },
      ]),
    /Visitors has 172\.119\.60\.0\/24, which is public space/,
  ],
  [
    "subnet-without-room",
    (d) => d.patch("segment", find(d, "segment", "Kit").id, { prefixes4: [net("172.19.70.0/31")] }),
    /Kit has 172\.19\.70\.0\/31, which holds 2, and 6 devices/,
  ],
  [
    "no-room-for-growth",
    (d) => d.patch("segment", find(d, "segment", "Household").id, { planned: 220, growth: 25 }),
    /Household has 253 addresses beside the gateway and 275 devices/,
  ],
  [
    "advertised-prefix-length",
    (d) =>
      d.patch("segment", find(d, "segment", "Household").id, {
        prefixes6: [net6("fd24:1:2:20::/80")],
        advertise: "slaac",
      }),
    /Household announces fd24:1:2:20::\/80/,
  ],
  [
    "pool-empty",
    (d) => d.patch("scope", scopeOf(d, "Studio").id, { exclusions: [range("172.19.30.1", "172.19.30.254")] }),
    /scope of Studio excludes every address/,
  ],
  [
    "lease-outlives-visit",
    (d) =>
      d.patch("segment", find(d, "segment", "Visitors").id, {
        visit: { perHour: 30, staySeconds: 3600, openSeconds: 36_000 },
      }),
    /Visitors: a visit lasts 1 h and a lease 8 h, so 277 addresses are in use at the peak; the pool has 100/,
  ],
  [
    "names-without-server",
    (d) => d.patch("segment", find(d, "segment", "Studio").id, { dns: [ip("172.19.30.9")] }),
    /Studio is told to ask 172\.19\.30\.9 for DNS, an address in Studio that no device of the plan has/,
  ],
  [
    "reserved-in-static-block",
    (d) => d.patch("host", find(d, "host", "kiln-controller").id, { ipv4: ip("172.19.30.5") }),
    /\.5 is reserved for kiln-controller and lies in the block of Studio/,
  ],
  [
    "school-mixed",
    (d) =>
      d.put("host", {
        ...find(d, "host", "kiln-controller"),
        id: testId("host", "second kiln"),
        name: "kiln-controller-2",
        manner: "typed",
        ipv4: ip("172.19.30.6"),
        mac: parseMac("02:5a:10:aa:00:01"),
        attachment: { at: "unplaced" },
      }),
    /Studio: of the controller \(PLC\)s, 1 has a static address and 1 a reserved one/,
  ],
  [
    "mac-is-group",
    (d) => d.patch("host", find(d, "host", "tablet").id, { mac: parseMac("03:5a:10:00:00:01") }),
    /tablet has 03:5a:10:00:00:01, which stands for a group/,
  ],
  [
    "host-name-twice",
    (d) => d.patch("host", find(d, "host", "tablet").id, { name: "study-pc" }),
    /2 devices are called study-pc, in Household/,
  ],
  [
    "host-name-not-allowed",
    (d) => d.patch("host", find(d, "host", "tablet").id, { name: "Ada's tablet" }),
    /1 name is no host name: "Ada's tablet"\. In DNS "Ada's tablet" stands as adas-tablet/,
  ],
  [
    "vlan-not-created",
    (d) => void createdOn(d, "Hall switch", [20, 30, 40, 50, 70]),
    /Hall switch has ports in VLAN 60 and has not created it/,
  ],
  [
    "vlan-name-differs",
    (d) =>
      void d.patch("deviceVlan", must(createdOn(d, "Hall switch", [20, 30, 40, 50, 60, 70])[0], "an entry"), {
        name: "HOME",
      }),
    /Hall switch calls VLAN 20 "HOME"; in the plan it is "Household"/,
  ],
  [
    "vlan-name-too-long",
    (d) => d.patch("device", find(d, "device", "Hall switch").id, { vlanNameLimit: 8 }),
    /"Household" has 9 characters; Hall switch takes 8/,
  ],
  [
    "host-in-other-network",
    (d) => {
      const bell = find(d, "host", "door-bell");
      d.patch("host", bell.id, {
        attachment: { at: "ssid", ssid: find(d, "ssid", "Lock House").id, accessPoint: null },
      });
    },
    /door-bell belongs in Gadgets and hangs in Household/,
  ],
  [
    "entered-network-differs",
    (d) => static4(d, { length4: 16 }),
    /study-pc has \/16 entered as its mask; Household has \/24/,
  ],
  [
    "entered-network-differs",
    (d) => static4(d, { gateway4: ip("172.19.20.77") }),
    new RegExp(
      "study-pc has 172\\.19\\.20\\.77 entered as its gateway, which no router in Household has; " +
        "the gateway there is 172\\.19\\.20\\.1",
    ),
  ],
  [
    "joins-where-not-offered",
    (d) => {
      const [bell, studio, landing] = [
        find(d, "host", "door-bell"),
        find(d, "device", "Studio AP"),
        find(d, "device", "Landing AP"),
      ];
      const ssid = bell.attachment.at === "ssid" ? bell.attachment.ssid : "";
      d.patch("ssid", ssid, { at: [landing.id] });
      d.patch("host", bell.id, { attachment: { at: "ssid", ssid, accessPoint: studio.id } });
    },
    /door-bell is planned to join Lock Gadgets at Studio AP, which does not offer it/,
  ],
  [
    "next-hop-not-reached",
    (d) => d.patch("line", find(d, "line", "Fibre line").id, { length4: 30, nextHop4: ip("198.51.100.65") }),
    /Fibre line: the next hop 198\.51\.100\.65 is not in the range of 198\.51\.100\.70\/30/,
  ],
  [
    "next-hop-not-reached",
    (d) => d.patch("line", find(d, "line", "Fibre line").id, { nextHop4: ip("198.51.100.70") }),
    /Fibre line: the next hop 198\.51\.100\.70 is the gateway's own address there\./,
  ],
  [
    "line-facts-missing",
    (d) => d.patch("line", find(d, "line", "Fibre line").id, { addressing: "fixed" }),
    /Fibre line has a fixed address, and the plan does not say its mask and next hop/,
  ],
  [
    "asks-from-no-address",
    (d) => {
      const leg = must(
        d
          .all("interface")
          .find((leg) => leg.device === find(d, "device", "Gateway").id && leg.addresses4.length === 0),
        "the mobile line's leg",
      );
      d.patch("device", find(d, "device", "Gateway").id, { asksFrom: leg.id });
    },
    /Gateway is to ask its servers from Mobile line, which has no address/,
  ],
  [
    "bridge-mac-twice",
    (d) => {
      for (const name of ["Gateway", "Hall switch"])
        d.patch("device", find(d, "device", name).id, {
          bridgeMac: "02:5a:10:00:00:01" as Device["bridgeMac"],
        });
    },
    /02:5a:10:00:00:01 is entered as the bridge MAC address of Gateway and Hall switch/,
  ],
  [
    "server-not-heard",
    (d) => d.patch("scope", scopeOf(d, "Studio").id, { serverDevice: find(d, "device", "Landing AP").id }),
    /Landing AP serves Studio and does not hear it/,
  ],
  [
    "gateway-does-not-answer",
    (d) => {
      d.patch("port", portOf(d, "Gateway", "2").id, { enabled: true });
      d.patch("interface", must(find(d, "segment", "Studio").gatewayInterface, "a leg"), {
        port: portOf(d, "Gateway", "2").id,
      });
    },
    /in Studio get no answer from their gateway: nothing leads to them from Gateway port 2/,
  ],
];
