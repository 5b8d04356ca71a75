import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatPrefix, formatRange, parsePrefix, readPrefix } from "../address";
import { must } from "../kernel";
import type { Plan } from "../plan";
import { afterEdit, donePlan } from "../testing/after-edit";
import { editSegmentCell, poolParts, rangeInSegment } from "./segments/segment-cell";
import { editSite } from "./site/edit-site";
import { pasteHosts, pasteSegments } from "./register/table-paste";
import { readPrefixes } from "./site/survey-text";

// The same thing is written in several ways by the people of the trade; each is read wherever one is.

const house = lockkeepersHouse();
const studio = must(
  [...house.segment.values()].find(({ name }) => name === "Studio"),
  "Studio",
);
const pool = (text: string): string | null => {
  const range = rangeInSegment(studio, text);
  return range === null ? null : formatRange(range);
};

test.each([
  [".40-.99", "172.19.30.40 to 172.19.30.99"],
  [".40 + 60", "172.19.30.40 to 172.19.30.99"],
  [".40+60", "172.19.30.40 to 172.19.30.99"],
  ["172.19.30.40 for 60", "172.19.30.40 to 172.19.30.99"],
  [".40 count 60", "172.19.30.40 to 172.19.30.99"],
  [".40, count 60", "172.19.30.40 to 172.19.30.99"],
  [".40 60 addresses", "172.19.30.40 to 172.19.30.99"],
  [".40 × 60", "172.19.30.40 to 172.19.30.99"],
  [".40 to .99, count 60", "172.19.30.40 to 172.19.30.99"],
  [".40", "172.19.30.40 to 172.19.30.40"],
  [".40 + 1", "172.19.30.40 to 172.19.30.40"],
  [".40 to .99, count 61", null],
  [".40 + 0", null],
  [".40 + x", null],
  ["+ 60", null],
  [".40 + ", null],
])("a pool written as %j", (text, wanted) => {
  expect(pool(text)).toBe(wanted);
});

test("several pools in one cell, some by their count", () => {
  expect(poolParts(".40-.59, .80 + 10, .100, count 5").map(pool)).toEqual([
    "172.19.30.40 to 172.19.30.59",
    "172.19.30.80 to 172.19.30.89",
    "172.19.30.100 to 172.19.30.104",
  ]);
  const edited = donePlan(
    afterEdit(house, (context) => editSegmentCell(context, studio.id, "pool", ".40-.59, .80 + 10")),
  );
  expect(
    [...edited.scope.values()]
      .find(({ segment, family }) => segment === studio.id && family === 4)
      ?.pools.map(formatRange),
  ).toEqual(["172.19.30.40 to 172.19.30.59", "172.19.30.80 to 172.19.30.89"]);
  expect(
    afterEdit(house, (context) => editSegmentCell(context, studio.id, "pool", ".40 + 61 or so")),
  ).toMatch(
    new RegExp(
      "is not a pool; write its first and last address, such as \\.40-\\.99, " +
        "or the first and how many, such as \\.40 \\+ 60",
    ),
  );
});

test.each([
  ["10.24.20.0/24", "10.24.20.0/24"],
  ["10.24.20.0/255.255.255.0", "10.24.20.0/24"],
  ["10.24.20.0 255.255.255.0", "10.24.20.0/24"],
  ["10.24.20.0 mask 255.255.254.0", "10.24.20.0/23"],
  ["10.24.20.0 netmask 255.255.255.240", "10.24.20.0/28"],
  ["fd24:1::/64", "fd24:1::/64"],
  ["10.24.20.1 255.255.255.0", null],
  ["10.24.20.0 255.0.255.0", null],
  ["10.24.20.0", null],
])("a subnet written as %j", (text, wanted) => {
  const read = readPrefix(text);
  expect(read === null ? null : formatPrefix(read)).toBe(wanted);
});

test("dotted masks are read in lists of blocks and in a segment's cell; a plan file holds lengths only", () => {
  const lists = readPrefixes("10.24.0.0 255.255.0.0, 10.26.0.0/16 10.28.0.0 mask 255.255.0.0", 16);
  expect(lists.value?.map(formatPrefix)).toEqual(["10.24.0.0/16", "10.26.0.0/16", "10.28.0.0/16"]);
  const blocks = (plan: Plan) => plan.site.blocks.map(formatPrefix);
  expect(
    blocks(donePlan(afterEdit(house, (context) => editSite(context, "blocks", "172.19.0.0 255.255.128.0")))),
  ).toEqual(["172.19.0.0/17"]);
  const moved = donePlan(
    afterEdit(house, (context) =>
      editSegmentCell(context, studio.id, "prefix", "172.19.30.0 255.255.255.128"),
    ),
  );
  expect(moved.segment.get(studio.id)?.prefixes4.map(formatPrefix)).toEqual(["172.19.30.0/25"]);
  expect(parsePrefix("10.24.20.0/255.255.255.0")).toBeNull();
});

test("a first row names the columns in any order; strange and double names are refused in words", () => {
  const rows = [
    ["VLAN ID", "Subnet", "Network", "DHCP pool"],
    ["80", "172.19.80.0 255.255.255.0", "Workshop", ".40 + 60"],
    ["90", "172.19.90.0/24", "Attic", ""],
  ];
  const pasted = donePlan(
    afterEdit(house, (context) => pasteSegments(context, { rows, from: "mark", onto: [] })),
  );
  const made = [...pasted.segment.values()].filter(({ id }) => !house.segment.has(id));
  expect(made.map(({ name, prefixes4 }) => [name, ...prefixes4.map(formatPrefix)])).toEqual([
    ["Workshop", "172.19.80.0/24"],
    ["Attic", "172.19.90.0/24"],
  ]);
  expect(
    [...pasted.scope.values()].find(({ segment }) => segment === made[0]?.id)?.pools.map(formatRange),
  ).toEqual(["172.19.80.40 to 172.19.80.99"]);
  expect(
    afterEdit(house, (context) =>
      pasteSegments(context, {
        rows: [
          ["Name", "Colour"],
          ["Barn", "blue"],
        ],
        from: "name",
        onto: [],
      }),
    ),
  ).toBe('Row 1 names the columns, and "Colour" is none of this table; take that column out.');
  const refused = (first: string[]) =>
    afterEdit(house, (context) =>
      pasteSegments(context, { rows: [first, ...rows.slice(1)], from: "mark", onto: [] }),
    );
  expect(refused(["VLAN ID", "Subnet", "Owner", "DHCP pool"])).toBe(
    'Row 1 names the columns, and "Owner" is none of this table; take that column out.',
  );
  expect(refused(["VLAN ID", "Subnet", "Network", "VLAN"])).toBe("Row 1 names the column vid twice.");
  expect(
    afterEdit(house, (context) =>
      pasteSegments(context, {
        rows: [rows[0] ?? [], ["80", "172.19.80.0/33", "Workshop", ""]],
        from: "mark",
        onto: [],
      }),
    ),
  ).toMatch(/^Row 2: "172\.19\.80\.0\/33" is not an IPv4 subnet/);
  const hosts = donePlan(
    afterEdit(house, (context) =>
      pasteHosts(
        context,
        {
          rows: [
            ["Host name", "MAC address", "Type"],
            ["glaze-pc", "02:5a:10:0b:0b:0b", "PC"],
          ],
          from: "address",
          onto: [],
        },
        studio.id,
      ),
    ),
  );
  expect([...hosts.host.values()].find(({ name }) => name === "glaze-pc")).toMatchObject({
    mac: "02:5a:10:0b:0b:0b",
    kind: "pc",
    segment: studio.id,
  });
});
