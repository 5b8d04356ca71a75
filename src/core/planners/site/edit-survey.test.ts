import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { formatAddress, formatPrefix } from "../../address";
import { must } from "../../kernel";
import { applyChanges, PlanIndex, type Plan, type Room } from "../../plan";
import { testId } from "../../testing/build-plan";
import {
  addGear,
  addHostKind,
  addLine,
  addRoom,
  editGear,
  editRoom,
  moveRoom,
  pasteRooms,
  removeLine,
  removeRooms,
  setAliases,
} from "./edit-survey";
import {
  addOption,
  editSegmentField,
  removeOption,
  SEGMENT_FIELDS,
  segmentFieldText,
  setServer,
} from "../segments/segment-fields";
import { deviceVlansText, setDeviceVlans } from "../gear/device-vlans";
import { editLineText, editSite, SITE_FIELDS, siteFieldText } from "./edit-site";
import { editSegmentCell } from "../segments/segment-cell";
import { plan as runPlanner, type EditContext, type Refusal } from "../planner";
import { removeDevice } from "./remove";

let made = 0;
/** The plan after an edit, or the sentence why not. */
function after(plan: Plan, edit: (context: EditContext) => Refusal | void): Plan | string {
  const { batch, refusal } = runPlanner(
    PlanIndex.of(plan),
    () => testId("edit-survey", `${(made += 1)}`),
    { planner: "test", summary: "", args: null },
    edit,
  );
  if (batch === null) return refusal;
  const applied = applyChanges(plan, batch.changes);
  return must(
    applied.ok ? applied.value : null,
    `applies: ${applied.ok ? "" : JSON.stringify(applied.error)}`,
  );
}
const done = (plan: Plan | string): Plan => must(typeof plan === "string" ? null : plan, String(plan));
const room = (plan: Plan, name: string): Room =>
  must(
    [...plan.room.values()].find((r) => r.name === name),
    name,
  );
const segment = (plan: Plan, name: string) =>
  must(
    [...plan.segment.values()].find((s) => s.name === name),
    name,
  );
const fennel = fennelStreet();

describe("rooms", () => {
  test("a pasted list: rooms that others lead to become cabinets, known ones change, others are new", () => {
    const plan = done(
      after(fennel, (context) =>
        pasteRooms(context, [
          ["Attic", "2 PC", "Under the stairs", "12,5", "Upstairs"],
          ["Under the stairs", ""],
          ["Lab", "3 PC"],
          ["", "", ""],
        ]),
      ),
    );
    expect(room(plan, "Under the stairs").kind).toBe("cabinet");
    expect(room(plan, "Attic")).toMatchObject({
      needs: "2 PC",
      cabinet: room(plan, "Under the stairs").id,
      cableCm: 1250,
      group: "Upstairs",
    });
    expect([room(plan, "Lab").needs, room(plan, "Lab").cabinet]).toEqual([
      "3 PC",
      room(fennel, "Lab").cabinet,
    ]);
    expect(plan.room.size).toBe(fennel.room.size + 2);
    expect(
      after(fennel, (context) =>
        pasteRooms(context, [
          ["Attic", "2 PC"],
          ["Loft", "1 PC", "Nowhere"],
        ]),
      ),
    ).toBe('Row 2: There is no cabinet called "Nowhere"; make that room a cabinet first.');
    expect(after(fennel, (context) => pasteRooms(context, [["Attic", "2 PC", "Cabinet A", "far"]]))).toMatch(
      /^Row 1: "far" is no length/,
    );
  });

  test("a renamed room takes the places of its devices along; a name twice is refused", () => {
    const plan = done(
      after(fennel, (context) => editRoom(context, room(fennel, "Lab").id, "name", "Laboratory")),
    );
    expect([...plan.host.values()].filter((h) => h.place === "Lab")).toEqual([]);
    expect([...plan.host.values()].filter((h) => h.place === "Laboratory").length).toBe(
      [...fennel.host.values()].filter((h) => h.place === "Lab").length,
    );
    expect(after(fennel, (context) => editRoom(context, room(fennel, "Lab").id, "name", "office"))).toMatch(
      /There is a room called office already/,
    );
  });

  test("a removed cabinet leaves its rooms, its gear and the devices drafted for it without it", () => {
    const cabinet = room(fennel, "Cabinet A");
    const plan = done(after(fennel, (context) => removeRooms(context, [cabinet.id])));
    expect([...plan.room.values()].some((r) => r.cabinet === cabinet.id)).toBe(false);
    expect([...plan.gear.values()].every((g) => g.room !== cabinet.id)).toBe(true);
    expect(plan.host.size).toBe(fennel.host.size);
    expect([...plan.host.values()].some((h) => h.surveyed?.room === cabinet.id)).toBe(false);
  });

  test("a cabinet that becomes a room ends no socket; up and down change nothing but the order", () => {
    const plan = done(
      after(fennel, (context) => editRoom(context, room(fennel, "Cabinet B").id, "kind", "room")),
    );
    expect([...plan.room.values()].filter((r) => r.cabinet === room(fennel, "Cabinet B").id)).toEqual([]);
    const order = (of: Plan) =>
      [...of.room.values()].sort((a, b) => a.position - b.position).map((r) => r.name);
    const up = done(after(fennel, (context) => moveRoom(context, room(fennel, "Lab").id, -1)));
    expect(order(up).indexOf("Lab")).toBe(order(fennel).indexOf("Lab") - 1);
    expect(order(done(after(up, (context) => moveRoom(context, room(up, "Lab").id, 1))))).toEqual(
      order(fennel),
    );
    expect(
      done(
        after(fennel, (context) =>
          moveRoom(
            context,
            must(
              [...fennel.room.values()].find((r) => r.position === 0),
              "the first",
            ).id,
            -1,
          ),
        ),
      ),
    ).toEqual(fennel);
  });

  test("what a room can't be is said", () => {
    const lab = room(fennel, "Lab").id;
    expect(
      after(fennel, (context) => editRoom(context, room(fennel, "Cabinet A").id, "cabinet", "Cabinet A")),
    ).toMatch(/leads to no other/);
    expect(after(fennel, (context) => editRoom(context, lab, "needs", "x".repeat(2001)))).toMatch(
      /at most 2000 characters/,
    );
    expect(after(fennel, (context) => editRoom(context, lab, "height", "tall"))).toMatch(/is no height/);
    expect(after(fennel, (context) => editRoom(context, lab, "kind", "attic"))).toMatch(
      /none of: room, cabinet, outdoor/,
    );
    expect(after(fennel, (context) => addRoom(context, { name: " " }))).toMatch(/Give the room a name/);
  });
});

describe("gear, kinds and lines", () => {
  test("gear is entered with what it uses, and wrong texts are refused by what was typed", () => {
    const added = done(after(fennel, (context) => addGear(context, { name: "Old router", kind: "gateway" })));
    const id = must(
      [...added.gear.values()].find((g) => g.name === "Old router"),
      "the gear",
    ).id;
    const written = done(
      after(
        added,
        (context) =>
          editGear(context, id, "prefixes", "192.168.203.0/24, 10.61.8.0/24") ??
          editGear(context, id, "addresses", "192.168.203.1") ??
          editGear(context, id, "supportUntil", "2024-02-29"),
      ),
    );
    expect(written.gear.get(id)).toMatchObject({ supportUntil: "2024-02-29" });
    expect(written.gear.get(id)?.prefixes.map(formatPrefix)).toEqual(["192.168.203.0/24", "10.61.8.0/24"]);
    expect(after(added, (context) => editGear(context, id, "prefixes", "192.168.203.1/24"))).toMatch(
      /the host part must be zero/,
    );
    expect(after(added, (context) => editGear(context, id, "supportUntil", "2025-02-29"))).toMatch(
      /is not a date/,
    );
    expect(after(added, (context) => addGear(context, { name: "old ROUTER" }))).toMatch(
      /called old ROUTER already/,
    );
  });

  test("a kind of one's own has other words, each once", () => {
    const plan = done(after(fennel, (context) => addHostKind(context, "kiosk", { purpose: "people" })));
    const id = must([...plan.hostKind.keys()][0], "a kind");
    expect(
      done(
        after(plan, (context) => setAliases(context, id, "terminal, info desk, terminal , ")),
      ).hostKind.get(id)?.aliases,
    ).toEqual(["terminal", "info desk"]);
  });

  test("a line: tag, rates, the box; removed, its legs go with it", () => {
    const plan = done(after(fennel, (context) => addLine(context, "Mobile line")));
    const id = must(
      [...plan.line.values()].find((l) => l.name === "Mobile line"),
      "the line",
    ).id;
    const written = done(
      after(
        plan,
        (context) =>
          editLineText(context, id, "vlanTag", "101") ??
          editLineText(context, id, "downMbps", "60 Mbit/s") ??
          editLineText(context, id, "boxPrefix", "192.168.144.0/24"),
      ),
    );
    expect(written.line.get(id)).toMatchObject({ vlanTag: 101, downMbps: 60 });
    expect(after(plan, (context) => editLineText(context, id, "vlanTag", "0"))).toMatch(/is not a VLAN ID/);
    const fibre = must([...fennel.line.keys()][0], "a line");
    const without = done(after(fennel, (context) => removeLine(context, fibre)));
    expect([
      without.line.size,
      [...without.interface.values()].filter((leg) => leg.line !== null).length,
    ]).toEqual([0, 0]);
  });
});

describe("the site's and the segments' fields", () => {
  test("every field's text can be typed in again and changes nothing", () => {
    for (const plan of [fennel, lockkeepersHouse()]) {
      const index = PlanIndex.of(plan);
      for (const field of SITE_FIELDS)
        expect([
          field,
          done(after(plan, (context) => editSite(context, field, siteFieldText(plan.site, field)))).site,
        ]).toEqual([field, plan.site]);
      for (const segment of plan.segment.values()) {
        for (const field of SEGMENT_FIELDS) {
          const text = segmentFieldText(index, segment, field);
          if (
            text === "" &&
            ["exclusions", "relay"].includes(field) &&
            (index.scopesOf(segment.id).length === 0 || segment.gatewayInterface === null)
          )
            continue;
          expect([
            segment.name,
            field,
            done(after(plan, (context) => editSegmentField(context, segment.id, field, text))),
          ]).toEqual([segment.name, field, plan]);
        }
      }
    }
  });

  test.each([
    ["vidStart", "1", /is not a VLAN ID to begin with/],
    ["vidStep", "0", /is no step/],
    ["growth", "lots", /is no growth/],
    ["namePattern", "device", /makes no names/],
    ["domainName", "fennel street", /is not a domain/],
    ["dnsServers", "here", /is not an address/],
    ["lease", "soon", /is not a lease time/],
    ["staticSize", "-1", /is no size/],
  ] as const)("the site's %s refuses %j", (field, text, sentence) => {
    expect(after(fennel, (context) => editSite(context, field, text))).toMatch(sentence);
  });

  test("several pools, exclusions, a relay, options and another server", () => {
    const staff = segment(fennel, "Staff");
    const written = done(
      after(
        fennel,
        (context) =>
          editSegmentCell(context, staff.id, "pool", ".40–.59, .80-.99") ??
          editSegmentField(context, staff.id, "exclusions", ".45-.49, .85") ??
          editSegmentField(context, staff.id, "relay", "10.24.60.10") ??
          addOption(context, staff.id, "42 10.24.60.10") ??
          addOption(context, staff.id, "66 boot.fennel.internal"),
      ),
    );
    const index = PlanIndex.of(written);
    const scope = must(index.scopesOf(staff.id)[0], "a scope");
    expect(scope.pools.map((p) => [formatAddress(p.first), formatAddress(p.last)])).toEqual([
      ["10.24.20.40", "10.24.20.59"],
      ["10.24.20.80", "10.24.20.99"],
    ]);
    expect(scope.exclusions.map((p) => [formatAddress(p.first), formatAddress(p.last)])).toEqual([
      ["10.24.20.45", "10.24.20.49"],
      ["10.24.20.85", "10.24.20.85"],
    ]);
    expect(formatAddress(must(index.gatewayOf(staff)?.relayTo, "a relay"))).toBe("10.24.60.10");
    expect(scope.options.map((o) => o.code)).toEqual([42, 66]);
    expect(
      done(after(written, (context) => removeOption(context, scope.id, 42)))
        .scope.get(scope.id)
        ?.options.map((o) => o.code),
    ).toEqual([66]);
    const server = must(
      [...written.host.values()].find((h) => h.name === "Practice server"),
      "a server",
    ).id;
    expect(
      done(after(written, (context) => setServer(context, scope.id, { host: server }))).scope.get(scope.id),
    ).toMatchObject({ serverDevice: null, serverHost: server });
    expect(
      after(fennel, (context) => editSegmentCell(context, staff.id, "pool", ".40-.60, .50-.70")),
    ).toMatch(/share addresses/);
    expect(
      after(fennel, (context) =>
        editSegmentField(context, segment(fennel, "Servers").id, "exclusions", ".4"),
      ),
    ).toMatch(/has no pool to exclude anything from/);
  });

  test("the VLANs on a device: as typed, back as text, gone with the device", () => {
    const device = must(
      [...fennel.device.values()].find((d) => d.name === "Switch B"),
      "a switch",
    ).id;
    const plan = done(after(fennel, (context) => setDeviceVlans(context, device, "30 Phones, 20 STAFF")));
    expect(deviceVlansText(PlanIndex.of(plan), device)).toBe("20 STAFF, 30 Phones");
    const renamed = done(after(plan, (context) => setDeviceVlans(context, device, "20 Staff, 40")));
    expect(deviceVlansText(PlanIndex.of(renamed), device)).toBe("20 Staff, 40");
    expect([...renamed.deviceVlan.values()].find((v) => v.vid === 20)?.id).toBe(
      [...plan.deviceVlan.values()].find((v) => v.vid === 20)?.id,
    );
    expect(done(after(renamed, ({ edits }) => removeDevice(edits, device))).deviceVlan.size).toBe(0);
    expect(after(plan, (context) => setDeviceVlans(context, device, "Staff"))).toMatch(/"Staff" is no VLAN/);
  });
});
