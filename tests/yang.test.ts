import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bramblewick } from "../demo/bramblewick";
import { fennelStreet } from "../demo/fennel-street";
import { lockkeepersHouse } from "../demo/lockkeepers-house";
import { deviceData, yangData, yangText } from "@/core/device-sheet";
import { accessListText } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";

const SHIPPED = "/usr/share/yuma";
const MODULES = [
  "nmda-modules/ietf/ietf-interfaces@2018-02-20.yang",
  "nmda-modules/ietf/ietf-ip@2018-02-22.yang",
  "modules/ietf/iana-if-type@2014-05-08.yang",
].map((file) => join(SHIPPED, file));
const PATHS = ["nmda-modules/ietf", "modules/ietf"].flatMap((folder) => ["-p", join(SHIPPED, folder)]);
const folder = mkdtempSync(join(tmpdir(), "yang-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** What the validator says against the text; empty when it holds. */
function faults(text: string, modules = [...MODULES, "tests/yang/ieee802-dot1q-bridge.yang"]): string {
  const file = join(folder, "data.json");
  writeFileSync(file, text);
  try {
    execFileSync("yanglint", [...PATHS, "-t", "config", ...modules, file], { stdio: "pipe" });
    return "";
  } catch (error) {
    return (error as { stderr: Buffer }).stderr.toString() || "failed without a word";
  }
}

const indexes = [fennelStreet(), lockkeepersHouse(), bramblewick()].map((plan) => PlanIndex.of(plan));
const devices = indexes.flatMap((index) =>
  [...index.plan.device.values()].map((device) => ({
    name: `${index.plan.site.name}, ${device.name}`,
    data: deviceData(index, device),
  })),
);

test.each(devices)("the YANG data of $name is valid", ({ data }) => {
  expect(faults(yangText(data))).toBe("");
});

const switchB = must(
  devices.find(({ name }) => name.endsWith("Switch B")),
  "Switch B",
);

type Tree = Record<string, unknown>;
/** The data with one thing put wrong, to see that the validator would say so. */
function spoiled(spoil: (interfaces: Tree[], bridge: Tree) => void): string {
  const data = JSON.parse(JSON.stringify(yangData(switchB.data))) as {
    "ietf-interfaces:interfaces": { interface: Tree[] };
    "ieee802-dot1q-bridge:bridges": { bridge: Tree[] };
  };
  spoil(
    data["ietf-interfaces:interfaces"].interface,
    must(data["ieee802-dot1q-bridge:bridges"].bridge[0], "a bridge"),
  );
  return JSON.stringify(data);
}

test("and what breaks the standards is not: VLAN 4095, a name twice, no address, no bridge", () => {
  expect(faults(spoiled(() => undefined))).toBe("");
  const port = (interfaces: Tree[]) => interfaces[0]?.["ieee802-dot1q-bridge:bridge-port"] as Tree;
  for (const spoil of [
    (interfaces: Tree[]) => {
      port(interfaces).pvid = 4095;
    },
    (interfaces: Tree[]) => {
      port(interfaces)["acceptable-frame"] = "some";
    },
    (interfaces: Tree[]) => {
      port(interfaces)["bridge-name"] = "another";
    },
    (interfaces: Tree[]) => {
      must(interfaces[1], "a second").name = interfaces[0]?.name;
    },
    (interfaces: Tree[]) => {
      must(
        interfaces.find((tree) => "ietf-ip:ipv4" in tree),
        "an address",
      )["ietf-ip:ipv4"] = { address: [{ ip: "10.0.0.256", "prefix-length": 24 }] };
    },
    (_: Tree[], bridge: Tree) => {
      delete bridge["bridge-type"];
    },
  ])
    expect(faults(spoiled(spoil))).not.toBe("");
});

test("membership in the data is what the ports carry", () => {
  const bridge = (
    yangData(switchB.data)["ieee802-dot1q-bridge:bridges"] as {
      bridge: {
        component: {
          "filtering-database": {
            "vlan-registration-entry": {
              vids: string;
              "port-map": {
                "port-ref": number;
                "static-vlan-registration-entries": { "vlan-transmitted": string };
              }[];
            }[];
          };
        }[];
      }[];
    }
  ).bridge[0];
  const entries = must(bridge?.component[0], "a component")["filtering-database"]["vlan-registration-entry"];
  for (const [at, port] of switchB.data.ports.entries()) {
    const of = (way: string) =>
      entries
        .filter((entry) =>
          entry["port-map"].some(
            (row) =>
              row["port-ref"] === at + 1 &&
              row["static-vlan-registration-entries"]["vlan-transmitted"] === way,
          ),
        )
        .map((entry) => Number(entry.vids));
    expect({ untagged: of("untagged"), tagged: of("tagged") }).toEqual({
      untagged: [...port.untagged],
      tagged: [...port.tagged],
    });
  }
});

const LISTS = ["tests/yang/ietf-access-control-list.yang"];
const listsOf = (index: PlanIndex): string => {
  const written = accessListText(index);
  return must("text" in written ? written.text : null, "they can be written");
};

test.each(indexes.map((index) => ({ name: index.plan.site.name, index })))(
  "the access lists of $name are valid (RFC 8519), and a port, a subnet or an action that is none is not",
  ({ index }) => {
    const text = listsOf(index);
    expect(faults(text, LISTS)).toBe("");
    for (const [was, is] of [
      [/"port": \d+/, '"port": 65536'],
      [/"source-ipv4-network": "[^"]*"/, '"source-ipv4-network": "10.0.0.0/33"'],
      [/list:accept"/, 'list:allow"'],
      [/"operator": "eq"/, '"operator": "is"'],
    ] as const) {
      const spoilt = text.replace(was, is);
      expect(spoilt).not.toBe(text);
      expect(faults(spoilt, LISTS)).not.toBe("");
    }
  },
);
