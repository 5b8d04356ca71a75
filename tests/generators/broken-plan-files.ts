import { fennelStreet } from "../../demo/fennel-street";
import { writePlanFile } from "../../src/core/formats";
import { must } from "../../src/core/kernel";

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const good = writePlanFile(fennelStreet());
export const goodFile = (): Record<string, Json> => JSON.parse(good) as Record<string, Json>;
const list = (file: Record<string, Json>, name: string) => file[name] as Record<string, Json>[];
const row = (file: Record<string, Json>, name: string, n: number) =>
  must(list(file, name)[n], `${name}[${n}]`);

/** A name, a way to spoil a good plan file, and what the refusal must say. */
export const BROKEN_FILES: readonly [string, (file: Record<string, Json>) => unknown, RegExp][] = [
  ["no JSON at all", () => "hello", /stops being JSON at line 1;/],
  [
    "cut off",
    () => good.slice(0, 5000),
    new RegExp(`stops being JSON at line ${good.slice(0, 5000).split("\n").length};`),
  ],
  ["a list instead of a plan", () => [], /the file: an object belongs here/],
  ["nothing", () => "", /JSON/],
  [
    "another format's word",
    (f) => ({ ...f, format: "other" }),
    /format: "dianome-plan" belongs here, not "other"/,
  ],
  ["a version to come", (f) => ({ ...f, version: 20 }), /version: 19 belongs here, not 20/],
  [
    "a missing list",
    (f) => {
      delete f.vlans;
      return f;
    },
    /vlans: is missing; a list belongs here/,
  ],
  ["an unknown list", (f) => ({ ...f, gadgets: [] }), /does not know: "gadgets"/],
  [
    "VLAN ID 4095",
    (f) => {
      row(f, "vlans", 2).vid = 4095;
      return f;
    },
    /vlans\[2\] "Phones"\.vid.*1 to 4094/,
  ],
  [
    "VLAN ID as text",
    (f) => {
      row(f, "vlans", 0).vid = "20";
      return f;
    },
    /vlans\[0\] "Kit"\.vid.*whole number from 1 to 4094/,
  ],
  [
    "a subnet with host bits",
    (f) => {
      row(f, "segments", 1).prefixes4 = ["10.24.20.1/25"];
      return f;
    },
    /segments\[1\] "Staff"\.prefixes4\[0\].*host part must be zero/,
  ],
  [
    "an octet over 255",
    (f) => {
      row(f, "hosts", 0).ipv4 = "10.24.256.1";
      return f;
    },
    /hosts\[0\].*\.ipv4.*not an IPv4 address/,
  ],
  [
    "a short MAC address",
    (f) => {
      row(f, "hosts", 3).mac = "02:5a:10";
      return f;
    },
    /hosts\[3\].*\.mac.*not a MAC address/,
  ],
  [
    "a name of nothing",
    (f) => {
      row(f, "zones", 0).name = "";
      return f;
    },
    /zones\[0\].*name can't be empty/,
  ],
  [
    "an unknown field",
    (f) => {
      row(f, "ports", 7).colour = "red";
      return f;
    },
    /ports\[7\].*does not know: "colour"/,
  ],
  [
    "a link to nowhere",
    (f) => {
      row(f, "links", 0).a = "00000000-0000-7000-8000-000000000000";
      return f;
    },
    /links\[0\].*"a".*port that is not in the plan/,
  ],
  [
    "a port linked twice",
    (f) => {
      row(f, "links", 1).a = must(row(f, "links", 0).a, "");
      return f;
    },
    /links\[1\].*takes one cable/,
  ],
  [
    "one id twice",
    (f) => {
      row(f, "zones", 1).id = must(row(f, "zones", 0).id, "");
      return f;
    },
    /zones\[1\].*same id as zones\[0\]/,
  ],
  [
    "a door without services",
    (f) => {
      row(f, "walls", 2).services = [];
      return f;
    },
    /walls\[2\].*Services are listed exactly/,
  ],
  [
    "half a host",
    (f) => {
      const h = row(f, "hosts", 4);
      delete h.manner;
      return f;
    },
    /hosts\[4\].*\.manner/,
  ],
  [
    "a lease of a second",
    (f) => {
      row(f, "scopes", 0).leaseSeconds = 1;
      return f;
    },
    /scopes\[0\]\.leaseSeconds.*at least 60 seconds/,
  ],
];

/** Every place of a JSON value. */
function placesOf(value: Json, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== "object" || value === null) return [path];
  const inner = Array.isArray(value) ? value.map((v, i) => [i, v] as const) : Object.entries(value);
  return [path, ...inner.flatMap(([key, v]) => placesOf(v, [...path, key]))];
}

export const PLACES = placesOf(goodFile()).filter((path) => path.length > 0);

function wrongFor(was: Json | undefined): Json {
  if (typeof was === "string") return 7;
  if (typeof was === "number") return "seven";
  if (typeof was === "boolean") return "yes";
  return was === null ? { wrong: true } : 42;
}

/** Spoils one place so that no reader could take it for what it was. */
export function corrupt(path: (string | number)[], how: number): Record<string, Json> {
  const file = goodFile();
  const parent = path
    .slice(0, -1)
    .reduce<Json>((value, key) => (value as Record<string | number, Json>)[key] ?? null, file) as Record<
    string | number,
    Json
  >;
  const key = must(path.at(-1), "a place");
  const was = parent[key];
  const wrongType = wrongFor(was);
  if (how === 1 && !Array.isArray(parent)) delete parent[key];
  else if (how === 2 && typeof was === "object" && was !== null && !Array.isArray(was))
    (was as Record<string, Json>).surplus = 1;
  else if (how === 3 && typeof was === "number") parent[key] = -1e9;
  else parent[key] = wrongType;
  return file;
}
