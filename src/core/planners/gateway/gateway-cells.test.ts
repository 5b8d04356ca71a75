import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { must } from "../../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../../plan";
import {
  EXCEPTION_COLUMNS,
  exceptionCellText,
  LINE_COLUMNS,
  lineCellText,
  pasteExceptions,
  pasteLines,
  pasteTunnels,
  pasteWishes,
  TUNNEL_COLUMNS,
  tunnelCellText,
  WISH_COLUMNS,
  wishCellText,
} from "..";
import type { EditContext, Refusal } from "../planner";

// The tables of the Gateway sheet and the exceptions: what is written is read again, and what can't be is a
// sentence that changes nothing.

let made = 0;
const ids = () => {
  made += 1;
  return `019c0000-0000-7000-8000-${String(made).padStart(12, "0")}`;
};
type Paste = (context: EditContext) => Refusal;
/** The plan after a paste, or its sentence; a refused paste has written nothing that counts. */
function after(plan: Plan, paste: Paste): Plan | string {
  const edits = new PlanEdits(plan);
  const refusal = paste({ edits, index: PlanIndex.of(plan), ids });
  if (refusal !== null) return refusal;
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "it applies");
}
const done = (plan: Plan, paste: Paste): Plan => {
  const result = after(plan, paste);
  return must(typeof result === "string" ? null : result, String(result));
};

const HOME = lockkeepersHouse();
const OFFICE = fennelStreet();
const lineId = (plan: Plan, name: string) =>
  must(
    [...plan.line.values()].find((line) => line.name === name),
    name,
  ).id;

test("a row of each table, pasted, reads again as it was written", () => {
  const line = [
    "1",
    "Radio line",
    "40",
    "198.51.100.1, 203.0.113.9",
    "5 s",
    "by hand",
    "Studio or nothing",
    "x.example",
    "kept, calls 5",
    "2001:db8:24::/56, always",
  ];
  const lines = done(HOME, (context) => pasteLines(context, [line], "order", []));
  const radio = must(
    [...lines.line.values()].find(({ name }) => name === "Radio line"),
    "the line",
  );
  const said = LINE_COLUMNS.map(([column]) => lineCellText(PlanIndex.of(lines), radio, column));
  // A new line ends at no device yet, so it stands alone in its order.
  expect(said).toEqual(line);

  const wish = ["At home", "kiln-controller", "https", "203.0.113.40, 2001:db8::/48", "VPN", "the potter"];
  const wishes = done(HOME, (context) => pasteWishes(context, [wish], "name", []));
  const kiln = must(
    [...wishes.wish.values()].find(({ name }) => name === "At home"),
    "the wish",
  );
  expect(WISH_COLUMNS.map(([column]) => wishCellText(PlanIndex.of(wishes), kiln, column))).toEqual(wish);

  const tunnel = ["Workshop", "another site", "10.98.0.0/24", "tcp 443", "Fibre line", "Gateway"];
  const tunnels = done(HOME, (context) => pasteTunnels(context, [tunnel], "name", []));
  const far = must(
    [...tunnels.segment.values()].find(({ name }) => name === "Workshop"),
    "the tunnel",
  );
  expect(TUNNEL_COLUMNS.map(([column]) => tunnelCellText(PlanIndex.of(tunnels), far, column))).toEqual(
    tunnel,
  );
  expect([...tunnels.interface.values()].find(({ segment }) => segment === far.id)?.addresses4).toEqual([]);

  const exception = [
    ...["Locum", "Guests", "Image store", "https, ssh", "Mon-Wed, Sat 08:00-17:30"],
    ...["2026-12-01", "2027-01-31", "Ruth", "till the new one starts", ""],
  ];
  const exceptions = done(OFFICE, (context) => pasteExceptions(context, [exception], "name", []));
  const locum = must(
    [...exceptions.exception.values()].find(({ name }) => name === "Locum"),
    "the exception",
  );
  expect(
    EXCEPTION_COLUMNS.map(([column]) => exceptionCellText(PlanIndex.of(exceptions), locum, column)),
  ).toEqual(exception);
});

test("lines close up when one moves, and several rows are one step", () => {
  const mobile = lineId(HOME, "Mobile line");
  const moved = done(HOME, (context) =>
    pasteLines(
      context,
      [
        ["1", "Mobile", "60"],
        ["2", "Fibre", "40"],
      ],
      "order",
      [mobile, lineId(HOME, "Fibre line")],
    ),
  );
  expect([...moved.line.values()].map(({ name, place, share }) => [place, name, share]).sort()).toEqual([
    [0, "Mobile", 60],
    [1, "Fibre", 40],
  ]);
});

test("a tunnel moves with its gateway's address, ends elsewhere, and asks for nothing twice", () => {
  const plan = done(HOME, (context) => pasteTunnels(context, [["Abroad"]], "name", []));
  const abroad = must(
    [...plan.segment.values()].find(({ name }) => name === "Abroad"),
    "the tunnel",
  );
  const write = (of: Plan, column: Parameters<typeof pasteTunnels>[2], text: string) =>
    after(of, (context) => pasteTunnels(context, [[text]], column, [abroad.id]));
  const there = must(write(plan, "subnet", "172.19.99.0/28") as Plan, "moved");
  const index = PlanIndex.of(there);
  expect(
    index
      .interfacesIn(abroad.id)
      .flatMap(({ addresses4 }) => addresses4)
      .map(String),
  ).toHaveLength(1);
  expect(tunnelCellText(index, must(there.segment.get(abroad.id), ""), "subnet")).toBe("172.19.99.0/28");
  expect(write(plan, "end", "Hall switch")).not.toEqual(expect.any(String));
  expect(write(plan, "end", "Cellar box")).toBe('There is no device called "Cellar box".');
});

const line = (column: Parameters<typeof pasteLines>[2], text: string): [Plan, Paste] => [
  HOME,
  (context) => pasteLines(context, [[text]], column, [lineId(HOME, "Fibre line")]),
];
const newRow = {
  line: (row: string[]): [Plan, Paste] => [HOME, (context) => pasteLines(context, [row], "name", [])],
  wish: (row: string[]): [Plan, Paste] => [HOME, (context) => pasteWishes(context, [row], "name", [])],
  tunnel: (row: string[]): [Plan, Paste] => [HOME, (context) => pasteTunnels(context, [row], "name", [])],
  exception: (row: string[]): [Plan, Paste] => [
    OFFICE,
    (context) => pasteExceptions(context, [row], "name", []),
  ],
};

test.each<[string, [Plan, Paste], RegExp]>([
  ["a place beyond the last", line("order", "3"), /^"3" is no place in the order; write 1 to 2\.$/],
  ["no place", line("order", "first"), /^"first" is no place/],
  ["a share beyond 100", line("share", "101"), /^"101" is no share/],
  ["five targets", line("watch", "192.0.2.1 192.0.2.2 192.0.2.3 192.0.2.4 192.0.2.5"), /these are 5\.$/],
  ["no target", line("watch", "moon"), /^"moon" is no address to ask/],
  ["a time too long", line("after", "2 h"), /^"2 h" is no time; write seconds up to 3600/],
  ["no time back", line("back", "later"), /^"later" is no time; .* or by hand\.$/],
  ["nobody to pin", line("pins", "Nobody"), /^There is no segment, device or service called "Nobody"/],
  ["a name with a space", line("follows", "my house"), /^"my house" is no name of a host/],
  ["an empty name", line("name", " "), /^A line's name has 1 to 80 characters\.$/],
  ["a line that is there", newRow.line(["Fibre line"]), /Fibre line/],
  ["a wish without a device", newRow.wish(["Something"]), /^Begin a new wish with the device/],
  ["a wish for nobody", newRow.wish(["x", "Nobody"]), /^There is no device called "Nobody" in the register/],
  ["a wish by no service", newRow.wish(["x", "tablet", "teleport"]), /^"teleport" is not a service/],
  ["a wish from nowhere", newRow.wish(["x", "tablet", "https", "afar"]), /^"afar" is no address or subnet/],
  ["a wish by no way", newRow.wish(["x", "tablet", "https", "", "drone"]), /^"drone" is no way in/],
  ["a tunnel without a name", newRow.tunnel(["", "people"]), /^Begin a new tunnel with its name\.$/],
  ["a tunnel for nobody", newRow.tunnel(["x", "ghosts"]), /^"ghosts" is neither people nor another site\.$/],
  ["a tunnel with no subnet", newRow.tunnel(["x", "people", "10.0.0.1/24"]), /is no IPv4 subnet/],
  ["a tunnel at no port", newRow.tunnel(["x", "", "", "udp 70000"]), /^"udp 70000" is no port to answer at/],
  ["a tunnel by no line", newRow.tunnel(["x", "", "", "", "Copper"]), /^There is no line called "Copper"/],
  ["an exception with one end", newRow.exception(["x", "Guests"]), /^A new exception needs both ends/],
  ["an exception with many ends", newRow.exception(["x", "Guests, Staff", "Servers"]), /is not one end/],
  [
    "an exception from the gateway",
    newRow.exception(["x", "Gateway", "Staff"]),
    /itself starts meets its walls/,
  ],
  [
    "an exception at no time",
    newRow.exception(["x", "Guests", "Image store", "https", "noon"]),
    /^"noon" is no time of the week/,
  ],
  [
    "an exception that ends before it begins",
    newRow.exception(["x", "Guests", "Image store", "https", "", "2027-02-01", "2027-01-01"]),
    /^Its last day, 2027-01-01, lies before its first, 2027-02-01\.$/,
  ],
])("%s is a sentence", (_, [plan, paste], says) => {
  expect(after(plan, paste)).toMatch(says);
});
