import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { PlanEdits, PlanIndex, applyChanges, firstAddressOf, leafletFor, type Plan } from "../../plan";
import { testId } from "../../testing/build-plan";
import { firstContact, nameOnDevice } from "./first-contact";
import {
  LEAFLET_FIELDS,
  leafletTable,
  leafletText,
  pasteLeaflets,
  setLeaflet,
  type LeafletField,
} from "./leaflet-text";

const PLAN = fennelStreet();
const MODEL = "A model of its own";

/** The leaflet after something was written; the sentence why not. */
function written(field: LeafletField, text: string): string {
  const edits = new PlanEdits(PLAN);
  const refusal = setLeaflet({ edits, ids: () => testId("leaflet", "new") }, MODEL, field, text);
  return refusal ?? leafletText(edits.get("leaflet", testId("leaflet", "new")), field);
}

test.each([
  ["addressing", "static", "its own"],
  ["addressing", "DHCP", "by DHCP"],
  ["addressing", "", ""],
  ["address", "192.168.1.1/24", "192.168.1.1/24"],
  ["address", "192.168.1.1", "192.168.1.1"],
  ["address", " ", ""],
  ["gives", "no", "no"],
  ["gives", "", ""],
  ["opens", "console 115200 8N1", "console 115200 8N1"],
  ["start", "2 min", "2 min"],
  ["start", "75", "75 s"],
  ["reset", "10 s", "10 s"],
  ["restarts", "yes", "yes"],
  ["restarts", "no", ""],
  ["nameRule", "Letters, digits and hyphens", "letters, digits, hyphens"],
  ["nameRule", "anything", ""],
  ["nameMost", "32", "32"],
  ["notes", "ask the maker's leaflet\nof 2026", "ask the maker's leaflet\nof 2026"],
] as const)("%s: %j is taken and can be written again", (field, text, again) => {
  expect(written(field, text)).toBe(again);
  expect(written(field, again)).toBe(again);
});

test.each([
  ["addressing", "by pigeon", /is no way to a first address; write "its own" or "by DHCP"/],
  [
    "address",
    "192.168.1/24",
    /is no first address; write one with its prefix length, such as 192\.168\.1\.1\/24/,
  ],
  ["address", "192.168.1.255/24", /can't be a device's address in a \/24/],
  ["address", "192.168.1.1/33", /is no first address/],
  ["gives", "maybe", /neither yes nor no/],
  ["opens", "x".repeat(121), /longer than 120 characters/],
  ["start", "3 h", /no time up to 2 h/],
  ["reset", "soon", /no time up to 10 min; write it such as 90 s or 2 min/],
  ["restarts", "often", /neither yes nor no/],
  ["nameRule", "runes", /no rule for names/],
  ["nameMost", "0", /no number of characters from 1 to 255/],
] as const)("%s: %j is refused with a sentence", (field, text, sentence) => {
  expect(written(field, text)).toMatch(sentence);
});

const after = (edit: (edits: PlanEdits) => unknown, plan: Plan = PLAN): PlanIndex => {
  const edits = new PlanEdits(plan);
  expect(edit(edits)).toBeNull();
  const applied = applyChanges(plan, edits.changes());
  return PlanIndex.of(must(applied.ok ? applied.value : null, "a plan"));
};

test("the table of leaflets can be pasted again, its columns in any order; a bad row changes nothing", () => {
  const table = leafletTable(PlanIndex.of(PLAN));
  expect(table).toHaveLength(5);
  const bare = { ...PLAN, leaflet: new Map() };
  let made = 0;
  const ids = () => testId("leaflet", String((made += 1)));
  const turned = table.map((row) => [...row].reverse());
  expect(leafletTable(after((edits) => pasteLeaflets({ edits, ids }, turned), bare))).toEqual(table);
  const edits = new PlanEdits(bare);
  expect(
    pasteLeaflets({ edits, ids }, [
      ["Model", "Which"],
      ["M", "1.2.3"],
    ]),
  ).toMatch(/^M: "1\.2\.3" is no first/);
  expect(pasteLeaflets({ edits, ids }, [["Which"], ["1.2.3.4"]])).toMatch(
    /^The first row has to name the columns: Model,/,
  );
  expect(LEAFLET_FIELDS).toHaveLength(11);
});

test("what the survey found on the device goes before its leaflet; its model cuts a name", () => {
  const index = PlanIndex.of(PLAN);
  const device = must(
    [...PLAN.device.values()].find(({ name }) => name === "Switch B"),
    "a switch",
  );
  expect(firstContact(index, device)).toEqual([
    ["First address", "192.168.204.3/24"],
    ["Open first", "https"],
    ["Starts in", "90 s"],
    ["Reset", "button held for 10 s"],
  ]);
  const found = after((edits) => {
    const gear = must([...edits.all("gear")][0], "gear");
    const { address4 } = must(leafletFor(index, device), "a leaflet");
    edits.patch("gear", gear.id, {
      device: device.id,
      fate: "keep",
      addresses: [must(address4, "it") + 1] as never,
      dhcp: "on",
    });
    return setLeaflet({ edits, ids: () => "" }, device.model, "nameMost", "4");
  });
  expect(firstAddressOf(found, device)).toMatchObject({ length: null, gives: true });
  expect(firstContact(found, device)[1]).toEqual(["DHCP server of its own", expect.stringMatching(/^on: /)]);
  expect(nameOnDevice(found, device)).toBe("Swit");
});
