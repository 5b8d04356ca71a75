import { must } from "../kernel";
import { BLANK_SSID } from "../plan";
import { paintPorts } from "../planners";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";
import {
  find,
  portOf,
  ring,
  radioOf,
  trees,
  guard,
  protect,
  profile,
  undecidedPair,
  secondCable,
  attic,
} from "./slips-at-home";
import { v } from "./written";

/** A slip for each check of VLANs at ports, trees, wireless and guards. */
export const SLIPS_OF_SWITCHING: Slip[] = [
  [
    "vid-twice",
    (d) => d.patch("vlan", find(d, "vlan", "Studio").id, { vid: v(20) }),
    /VLAN ID 20 stands for .*Household/,
  ],
  [
    "default-vid-for-management",
    (d) => d.patch("vlan", find(d, "vlan", "Kit").id, { vid: v(1) }),
    /Kit is on VLAN 1/,
  ],
  [
    "vlan-missing-on-hop",
    (d) => d.patch("port", portOf(d, "Hall switch", "1").id, { tagged: [20, 30, 40, 50, 70].map(v) }),
    /Visitors \(60\) stops at Hall switch port 1/,
  ],
  [
    "no-cable-between",
    (d) =>
      d.remove(
        "link",
        must(
          d.all("link").find((l) => l.b === portOf(d, "Hall switch", "1").id),
          "the uplink",
        ).id,
      ),
    /no cable joins them/,
  ],
  [
    "vlans-joined-by-link",
    (d) =>
      d.patch("port", portOf(d, "Landing AP", "1").id, {
        pvid: v(60),
        untagged: [v(60)],
        tagged: [20, 40, 50].map(v),
      }),
    /leaves .* in VLAN (70|60) arrives at .* in VLAN (60|70)/,
  ],
  [
    "port-vlan-undefined",
    (d) => d.patch("port", portOf(d, "Hall switch", "4").id, { pvid: v(25), untagged: [v(25)] }),
    /Hall switch port 4 is in VLAN 25/,
  ],
  [
    "ports-to-decide",
    (d) => d.patch("port", portOf(d, "Hall switch", "9").id, { enabled: true }),
    /Hall switch: 1 port is in no VLAN: 9/,
  ],
  [
    "trunk-to-one-host",
    (d) =>
      d.patch("port", portOf(d, "Hall switch", "5").id, {
        tagged: [30, 40].map(v),
        guards: portOf(d, "Hall switch", "1").guards,
      }),
    /Hall switch port 5 is a trunk with 2 tagged VLANs.*television/,
  ],
  [
    "host-in-wrong-vlan",
    (d) => d.patch("port", portOf(d, "Hall switch", "7").id, { pvid: v(20), untagged: [v(20)] }),
    /lodgers-desk belongs in VLAN 40.*lands in VLAN 20/,
  ],
  [
    "port-lists-differ",
    (d) => d.patch("port", portOf(d, "Hall switch", "4").id, { untagged: [v(30)] }),
    /untagged in VLAN 30, but its PVID is 20/,
  ],
  [
    "port-used-twice",
    (d) =>
      d.patch("host", find(d, "host", "study-pc").id, {
        attachment: { at: "port", port: portOf(d, "Hall switch", "5").id },
      }),
    /Hall switch port 5, which takes one cable/,
  ],
  [
    "vlan-needless-on-trunk",
    (d) => {
      for (const device of ["Hall switch", "Landing AP"]) {
        const port = portOf(d, device, device === "Hall switch" ? "2" : "1");
        d.patch("port", port.id, { tagged: [...port.tagged, v(30)].sort((a, b) => a - b) });
      }
    },
    new RegExp(
      "(Hall switch port 2 and Landing AP port 1|Landing AP port 1 and Hall switch port 2) " +
        "carry VLAN 30, which nobody needs there",
    ),
  ],
  [
    "vlan-missing-on-spare-way",
    (d) => {
      ring(d);
    },
    /carry VLANs? .*when another cable of the ring dies, that way is needed/,
  ],
  [
    "access-port-to-access-point",
    (d) => paintPorts(d, [portOf(d, "Hall switch", "2").id], { role: "access", vid: v(70) }),
    new RegExp(
      "Landing AP is plugged into Hall switch port 2, an access port in VLAN 70; " +
        "its wireless names need VLAN 20, 40, 50 and 60 too",
    ),
  ],
  [
    "channels-clash",
    (d) => d.patch("radio", radioOf(d, "Studio AP", "5").id, { channel: 40, widthMhz: 40 }),
    /Landing AP and Studio AP hear each other, and their channels (36 and 40|40 and 36) in 5 GHz overlap/,
  ],
  [
    "channel-not-allowed",
    (d) => d.patch("radio", radioOf(d, "Studio AP", "5").id, { channel: 149 }),
    /Studio AP 5 GHz: channel 149 at 40 MHz is not in the site's list \(Europe\)/,
  ],
  [
    "wide-channel-in-2-4-ghz",
    (d) => d.patch("radio", radioOf(d, "Studio AP", "2.4").id, { widthMhz: 40, channel: 11 }),
    /Studio AP 2\.4 GHz is 40 MHz wide/,
  ],
  [
    "guests-not-isolated",
    (d) => d.patch("ssid", find(d, "ssid", "Lock Visitors").id, { isolation: false }),
    /Lock Visitors leads visitors into Visitors without keeping them apart/,
  ],
  [
    "weak-wireless-security",
    (d) => d.patch("ssid", find(d, "ssid", "Lock Gadgets").id, { security: "pskTkip" }),
    /Lock Gadgets is secured by passphrase with TKIP: TKIP is withdrawn/,
  ],
  [
    "security-not-for-6-ghz",
    (d) => d.patch("ssid", find(d, "ssid", "Lock House").id, { bands: ["5", "6"] }),
    /Lock House is offered in 6 GHz with passphrase \(PSK and SAE\), which is not admitted there/,
  ],
  [
    "too-many-wireless-names",
    (d) =>
      void d.put("ssid", {
        ...BLANK_SSID,
        id: testId("ssid", "fifth"),
        name: "Lock Studio",
        segment: find(d, "segment", "Studio").id,
      }),
    /(Landing|Studio) AP announces 5 wireless names in 2\.4 GHz/,
  ],
  [
    "wireless-name-differs",
    (d) =>
      void d.put("ssid", {
        ...find(d, "ssid", "Lock House"),
        id: testId("ssid", "again"),
        security: "sae",
        at: [find(d, "device", "Studio AP").id],
      }),
    /Lock House is there 2 times, at .*, with different security/,
  ],
  [
    "loop-without-tree",
    (d) => {
      secondCable(d);
    },
    /closes a loop in VLANs 20, 30, 40, 50, 60, 70, and nothing on it blocks/,
  ],
  [
    "loop-through-undecided",
    (d) => {
      undecidedPair(d);
    },
    /The cable between .*Spare switch port [12].* closes a loop of ports that are in no VLAN yet/,
  ],
  [
    "root-by-accident",
    (d) => {
      trees(d, { Gateway: 32_768, "Hall switch": 32_768 });
    },
    /is the root of 2 bridges only because of its MAC address: .* has priority 32768, too/,
  ],
  [
    "root-at-the-edge",
    (d) => {
      trees(d, { Gateway: 16_384, "Hall switch": 8192, "Landing AP": 4096 });
    },
    /Landing AP is the root and hangs on one cable/,
  ],
  [
    "second-root-missing",
    (d) => {
      attic(d, 1);
      trees(d, { Gateway: 4096, "Hall switch": 32_768, "Attic switch 1": 32_768 });
    },
    /Gateway is the root, and after it 2 bridges have the same priority/,
  ],
  [
    "edge-on-uplink",
    (d) => {
      trees(d, { Gateway: 4096, "Hall switch": 8192 });
      guard(d, "Hall switch", "1", { edge: true });
    },
    /Hall switch port 1 is an edge port and leads to Gateway port 1/,
  ],
  [
    "guard-shuts-cable",
    (d) => {
      trees(d, { Gateway: 4096, "Hall switch": 8192 });
      guard(d, "Hall switch", "1", { bpduGuard: true });
    },
    /Hall switch port 1 has a BPDU guard and hears the tree of Gateway port 1/,
  ],
  [
    "regions-differ",
    (d) => {
      trees(d, { Gateway: 4096, "Hall switch": 8192 }, { kind: "multiple", region: "house" });
      d.patch("device", find(d, "device", "Hall switch").id, {
        tree: { ...find(d, "device", "Hall switch").tree, revision: 2 },
      });
    },
    /are not one region; what differs is the revision: (0 and 2|2 and 0)/,
  ],
  [
    "tree-kinds-mixed",
    (d) => {
      trees(d, { Gateway: 4096, "Hall switch": 8192 });
      d.patch("device", find(d, "device", "Hall switch").id, {
        tree: { ...find(d, "device", "Hall switch").tree, kind: "perVlan" },
      });
    },
    /run kinds of tree that do not know one another/,
  ],
  [
    "tree-too-deep",
    (d) => {
      attic(d, 23);
      trees(d, {
        Gateway: 4096,
        "Hall switch": 8192,
        ...Object.fromEntries(
          Array.from({ length: 23 }, (_, i) => [`Attic switch ${i + 1}`, 32_768 + 4096 * (i % 2)]),
        ),
      });
    },
    /Attic switch 23 is 24 cables from the root Gateway; 20 is the most/,
  ],
  [
    "snooping-without-trust",
    (d) => protect(d, "Hall switch", { snooping: [v(20), v(30)] }),
    /Hall switch port 1 leads to Gateway, which gives addresses in VLANs 20 and 30, and is not trusted/,
  ],
  [
    "inspection-kills-hosts",
    (d) => protect(d, "Hall switch", { arpInspection: [v(20)] }),
    /Hall switch inspects ARP and has no binding for .*: they reach nobody/,
  ],
  [
    "sign-in-server-unreachable",
    (d) => {
      d.put("signIn", profile(d, 1812));
      guard(d, "Hall switch", "7", { signIn: true, profile: testId("signIn", "House") });
    },
    new RegExp(
      "Hall switch does not reach study-pc .* for sign-in: .*wall Kit to Home is closed" +
        ".*1 port asks for a sign-in there",
    ),
  ],
  [
    "sign-in-old-port",
    (d) => {
      d.put("signIn", profile(d, 1645));
    },
    /House asks its servers at port 1645, the old one/,
  ],
];
