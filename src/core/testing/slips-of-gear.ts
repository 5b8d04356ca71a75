import { BLANK_GEAR, BLANK_LEAFLET, BLANK_LINK, USUAL_ABILITIES } from "../plan";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";
import { find, portOf, fibreTo, secondFibre, lagOf } from "./slips-at-home";
import { ip } from "./written";

/** A slip for each check of devices, cables, power and radios’ gear. */
export const SLIPS_OF_GEAR: Slip[] = [
  [
    "second-router-serves",
    (d) =>
      d.put("gear", {
        ...BLANK_GEAR,
        id: testId("gear", "old"),
        name: "Old router",
        kind: "gateway",
        dhcp: "on",
      }),
    /Old router is kept and runs a DHCP server of its own/,
  ],
  [
    "gear-address-taken",
    (d) => d.patch("gear", find(d, "gear", "Mobile box").id, { addresses: [ip("172.19.70.2")] }),
    /Mobile box has 172\.19\.70\.2, and so has Hall switch/,
  ],
  [
    "support-ended",
    (d) => d.patch("gear", find(d, "gear", "Mobile box").id, { supportUntil: "2025-06-30" }),
    /Mobile box faces the internet, and its maker's support ended on 2025-06-30/,
  ],
  [
    "first-address-met",
    (d) =>
      d.put("leaflet", {
        ...BLANK_LEAFLET,
        id: testId("leaflet", "switch"),
        model: find(d, "device", "Hall switch").model,
        address4: ip("172.19.50.1"),
        length4: 24,
      }),
    /Hall switch comes out of the box as 172\.19\.50\.1, and Gadgets is planned as 172\.19\.50\.0\/24/,
  ],
  [
    "name-unfit-for-model",
    (d) =>
      d.put("leaflet", {
        ...BLANK_LEAFLET,
        id: testId("leaflet", "switch"),
        model: find(d, "device", "Hall switch").model,
        nameRule: "label",
        nameMost: 8,
      }),
    /"Hall switch" does not go into a 16-port .*: its name takes letters, digits and hyphens, at most 8\./,
  ],
  [
    "loop-through-unmanaged",
    (d) =>
      void d.put("link", {
        ...BLANK_LINK,
        id: testId("link", "loop"),
        a: portOf(d, "Studio bench switch", "4").id,
        b: portOf(d, "Studio bench switch", "5").id,
      }),
    /Studio bench switch port 4 to Studio bench switch port 5 closes a loop through Studio bench switch/,
  ],
  [
    "cable-misfit",
    (d) => fibreTo(d, { cable: "os2" }, "10GBASE-SR", "10GBASE-SR"),
    /is OS2 single-mode, and the optic in port 17, 10GBASE-SR, needs multimode/,
  ],
  [
    "cable-too-long",
    (d) => fibreTo(d, { cable: "om2", lengthCm: 9000 }, "10GBASE-SR", "10GBASE-SR"),
    /is 90 m long; OM2 multimode carries 10 Gbit\/s over 82 m at most/,
  ],
  [
    "fibre-speeds-differ",
    (d) => {
      fibreTo(d, {}, "none", "none");
      d.patch("port", portOf(d, "Barn switch", "17").id, { speedMbps: 1000 });
    },
    /Hall switch port 17 runs at 10 Gbit\/s and Barn switch port 17 runs at 1 Gbit\/s/,
  ],
  [
    "copper-between-buildings",
    (d) => d.patch("room", find(d, "room", "Studio").id, { building: "Studio barn" }),
    new RegExp(
      "Hall switch port [36] to (Studio AP port 1|Studio bench switch port 1) is copper " +
        "and leads from the main building to Studio barn",
    ),
  ],
  [
    "lag-ends-differ",
    (d) => {
      fibreTo(d, {}, "10GBASE-SR", "10GBASE-SR");
      secondFibre(d);
      lagOf(d, "Hall switch", ["17", "18"]);
    },
    /Hall switch LAG 1 ends at Barn switch port 17 and Barn switch port 18, which are not one LAG/,
  ],
  [
    "no-power-on-port",
    (d) => d.patch("host", find(d, "host", "lodgers-desk").id, { poe: "class6" }),
    /lodgers-desk takes power of class 6 \(60 W at the port\), and Hall switch port 7 gives 30 W/,
  ],
  [
    "poe-budget-overrun",
    (d) => d.patch("device", find(d, "device", "Hall switch").id, { poeBudgetMw: 45_000 }),
    /Hall switch sets 60 W aside for 2 devices and has 45 W: 15 W too little/,
  ],
  [
    "poe-one-supply-lost",
    (d) => d.patch("device", find(d, "device", "Hall switch").id, { poeOneLostMw: 50_000 }),
    /Hall switch sets 60 W aside for 2 devices; with one supply lost it has 50 W/,
  ],
  [
    "uplink-oversubscribed",
    (d) => d.patch("port", portOf(d, "Hall switch", "1").id, { speedMbps: 10 }),
    /Gateway port 1 to Hall switch port 1 carries 10 Mbit\/s; the 6 devices behind it come to 40\.1 Mbit\/s/,
  ],
  [
    "too-many-vlans",
    (d) =>
      d.patch("device", find(d, "device", "Hall switch").id, {
        abilities: { ...USUAL_ABILITIES, maxVlans: 4 },
      }),
    /Hall switch has ports in 6 VLANs and can hold 4/,
  ],
  [
    "ports-cannot-mix",
    (d) =>
      d.patch("device", find(d, "device", "Hall switch").id, {
        abilities: { ...USUAL_ABILITIES, mixesTagged: false },
      }),
    /Hall switch can't have a port untagged and tagged at once: port [23] and port [23]/,
  ],
  [
    "software-name-twice",
    (d) => d.patch("port", portOf(d, "Hall switch", "4").id, { softwareName: "e1" }),
    /Hall switch: ports 2 and 4 are e1 in the software/,
  ],
  [
    "height-units-clash",
    (d) => {
      d.patch("device", find(d, "device", "Hall switch").id, { rackUnit: 3, heightUnits: 1 });
      d.patch("device", find(d, "device", "Gateway").id, { rackUnit: 2, heightUnits: 2 });
    },
    /Hall switch fills unit 3 of Hall cupboard, where Gateway is/,
  ],
  [
    "ports-run-out",
    (d) => d.patch("room", find(d, "room", "Study").id, { needs: "9 PC" }),
    /Hall cupboard needs 19 ports for what the survey names; Hall switch has 16/,
  ],
];
