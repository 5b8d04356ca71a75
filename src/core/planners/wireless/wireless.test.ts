import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { listFindings, repairsOf, runChecks, sentenceOf } from "../../checks";
import { must } from "../../kernel";
import { PlanEdits, offers, PlanIndex, type Plan } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { channelsOverlap, HEARING, RADIO_SETS } from "../../wireless";
import { pointRows } from "../../sheets";
import { accessPointRole } from "../ports/role-choices";
import { assignAllChannels } from "./assign-channels";
import {
  editRadioCell,
  editSsidCell,
  pasteRadios,
  pasteSsids,
  RADIO_COLUMNS,
  radioCellText,
  SSID_COLUMNS,
  ssidCellText,
} from "./wireless-cell";
import { addStack } from "../gear/add-stack";
import {
  channelsText,
  setChannel,
  setChannels,
  setHearing,
  setRadioIn,
  setRadioRules,
  widthsFor,
} from "./radios";
import { editSsid, setNameSchool } from "./ssid";

const house = lockkeepersHouse();
const office = fennelStreet();
const points = (plan: Plan) => [...plan.device.values()].filter((device) => device.kind === "accessPoint");

test("one name per access point and back: all stations are on a name of theirs, all names on air", () => {
  for (const plan of [house, office]) {
    const apart = donePlan(afterEdit(plan, (context) => setNameSchool(context, "each")));
    expect(apart.site.conventions.wifiNames).toBe("each");
    const index = PlanIndex.of(apart);
    for (const ssid of apart.ssid.values()) expect(ssid.at.length).toBe(1);
    expect(new Set([...apart.ssid.values()].map((ssid) => ssid.name)).size).toBe(apart.ssid.size);
    for (const before of plan.ssid.values()) {
      for (const point of points(plan).filter((device) => offers(PlanIndex.of(plan), device, before))) {
        const own = [...apart.ssid.values()].filter(
          (ssid) => ssid.segment === before.segment && offers(index, point, ssid),
        );
        expect(own.length).toBe(1);
        expect(own[0]?.security).toBe(before.security);
      }
    }
    for (const host of apart.host.values())
      if (host.attachment.at === "ssid")
        expect(apart.ssid.get(host.attachment.ssid)?.segment).toBe(host.segment);
    const together = donePlan(afterEdit(apart, (context) => setNameSchool(context, "one")));
    expect([...together.ssid.values()].map((ssid) => [ssid.name, ssid.segment, ssid.at]).sort()).toEqual(
      [...plan.ssid.values()].map((ssid) => [ssid.name, ssid.segment, ssid.at]).sort(),
    );
    for (const host of together.host.values())
      if (host.attachment.at === "ssid")
        expect(together.ssid.get(host.attachment.ssid)?.segment).toBe(
          plan.ssid.get((plan.host.get(host.id)?.attachment as { ssid: string }).ssid)?.segment,
        );
  }
});

test("two access points in one place can't have names of their own; nothing is half done", () => {
  const plan = donePlan(
    afterEdit(house, (context) => {
      for (const point of points(house)) context.edits.patch("device", point.id, { place: "Hall" });
    }),
  );
  expect(afterEdit(plan, (context) => setNameSchool(context, "each"))).toMatch(
    /^Two access points would offer ".+ Hall"; give them different places first\.$/,
  );
});

test("an access point's port needs what its own names lead into, and nothing of the others'", () => {
  const [first, second] = points(office);
  const [name] = [...office.ssid.values()].filter((ssid) => ssid.name.includes("Guests"));
  const only = donePlan(
    afterEdit(office, (context) =>
      editSsid(context, must(name, "the guests' name").id, { at: [first?.id ?? ""] }),
    ),
  );
  const index = PlanIndex.of(only);
  const role = (id: string) =>
    accessPointRole(index, only.device.get(id)?.domain ?? null, only.device.get(id) ?? null).tagged;
  const guests = index.vidOf(must(only.segment.get(name?.segment ?? ""), "guests"));
  expect(role(first?.id ?? "")).toContain(guests);
  expect(role(second?.id ?? "")).not.toContain(guests);
});

test("channels by the repair: of eight access points in a row no neighbours clash any more", () => {
  const crowd = donePlan(afterEdit(house, (context) => addStack(context, "6 × access point in Hall")));
  const row = points(crowd).sort((a, b) => (a.name < b.name ? -1 : 1));
  expect(row.length).toBe(8);
  const placed = donePlan(
    afterEdit(crowd, (context) => {
      for (const [i, point] of row.entries()) {
        context.edits.patch("device", point.id, { place: `Spot ${i}` });
        if (i > 0) setHearing(context, row[i - 1]?.id ?? "", point.id, true);
      }
      for (const radio of context.edits.all("radio"))
        context.edits.patch("radio", radio.id, { channel: radio.band === "2.4" ? 1 : 36 });
    }),
  );
  const before = PlanIndex.of(placed);
  const findings = listFindings(runChecks(before)).filter((finding) => finding.code === "channels-clash");
  expect(findings.length).toBeGreaterThan(0);
  const repair = must(
    repairsOf(must(findings[0], "a finding"), before).find((repair) => /channels/i.test(repair.label)),
    "a repair that assigns channels",
  );
  const after = PlanIndex.of(donePlan(afterEdit(placed, ({ edits, ids }) => repair.edit(edits, ids))));
  const left = listFindings(runChecks(after))
    .filter((finding) => finding.code === "channels-clash")
    .map((finding) => sentenceOf(finding, after));
  expect(left.filter((text) => text.includes(repair.label.includes("2.4") ? "2.4 GHz" : "5 GHz"))).toEqual(
    [],
  );
  const all = donePlan(
    afterEdit(placed, (context) =>
      assignAllChannels(context.edits, context.index, ["2.4", "5"], "with radar channels"),
    ),
  );
  expect(
    listFindings(runChecks(PlanIndex.of(all))).filter((finding) => finding.code === "channels-clash"),
  ).toEqual([]);
  const hearing = PlanIndex.of(all).derived(HEARING);
  for (const a of all.radio.values())
    for (const b of all.radio.values())
      if (a.band === "2.4" && b.band === "2.4" && hearing.get(a.device)?.has(b.device) === true)
        expect(channelsOverlap("2.4", [a.channel ?? 0], [b.channel ?? 0])).toBe(false);
});

test("the channels of a set are read back as they are written, and only those can be chosen", () => {
  const plan = donePlan(
    afterEdit(house, (context) =>
      setRadioRules(context, { region: "Europe", channels: [...RADIO_SETS.europe.channels] }),
    ),
  );
  for (const band of ["2.4", "5", "6"] as const) {
    const text = channelsText(plan.site.radio, band);
    const again = donePlan(afterEdit(plan, (context) => setChannels(context, band, text)));
    expect(channelsText(again.site.radio, band)).toBe(text);
  }
  const [radio] = [...plan.radio.values()].filter((radio) => radio.band === "5");
  expect(afterEdit(plan, (context) => setChannel(context, radio?.id ?? "", "165"))).toMatch(
    /^Channel 165 is not in the site's list for 5 GHz; choose one of 36, /,
  );
  expect(afterEdit(plan, (context) => setChannels(context, "5", "36, 36"))).toBe(
    "Channel 36 stands there twice; write it once.",
  );
  expect(widthsFor("2.4")).toEqual([20, 40]);
});

test("a radio put in and taken out again leaves the plan as it was", () => {
  const [point] = points(house);
  const six = donePlan(afterEdit(house, (context) => setRadioIn(context, point?.id ?? "", "6", true)));
  expect(
    [...six.radio.values()]
      .filter((radio) => radio.device === point?.id)
      .map((radio) => radio.band)
      .sort(),
  ).toEqual(["2.4", "5", "6"]);
  expect(
    donePlan(afterEdit(six, (context) => setRadioIn(context, point?.id ?? "", "6", false))).radio,
  ).toEqual(house.radio);
});

const ssidTable = (plan: Plan) =>
  [...plan.ssid.values()].map((ssid) =>
    SSID_COLUMNS.map((column) => ssidCellText(new PlanEdits(plan), ssid, column)),
  );
const radioTable = (plan: Plan) =>
  pointRows(PlanIndex.of(plan)).map(({ device, radios }) =>
    RADIO_COLUMNS.map((column) => radioCellText(radios, device.place, column)),
  );

test("both tables, pasted where they were, change nothing; in a site without they make the names", () => {
  for (const plan of [house, office]) {
    expect(
      donePlan(
        afterEdit(plan, (context) => pasteSsids(context, ssidTable(plan), "name", [...plan.ssid.keys()])),
      ),
    ).toEqual(plan);
    expect(
      donePlan(
        afterEdit(plan, (context) =>
          pasteRadios(
            context,
            radioTable(plan),
            "place",
            pointRows(PlanIndex.of(plan)).map(({ device }) => device.id),
          ),
        ),
      ),
    ).toEqual(plan);
    const bare = donePlan(
      afterEdit(plan, (context) => {
        for (const host of context.edits.all("host"))
          if (host.attachment.at === "ssid")
            context.edits.patch("host", host.id, { attachment: { at: "unplaced" } });
        for (const ssid of context.edits.all("ssid")) context.edits.remove("ssid", ssid.id);
      }),
    );
    expect(
      ssidTable(donePlan(afterEdit(bare, (context) => pasteSsids(context, ssidTable(plan), "name", [])))),
    ).toEqual(ssidTable(plan));
  }
});

test("cells refuse what they can't be, with what they can", () => {
  const [ssid] = office.ssid.keys();
  for (const [column, text, refusal] of [
    ["segment", "Nowhere", /no segment called/],
    ["more", "Staff, Nowhere", /no segment called "nowhere"/],
    ["security", "strong", /is no kind of security; write one of open, OWE/],
    ["hidden", "maybe", /neither yes nor no/],
    ["bands", "2.4, 7", /"7" is no band/],
    ["bands", "", /at least/],
    ["at", "Roof AP", /no access point called "roof ap"/],
    ["name", "", /1 to 32/],
  ] as const) {
    expect(afterEdit(office, (context) => editSsidCell(context, ssid ?? "", column, text))).toMatch(refusal);
  }
  const [point] = points(office);
  for (const [column, text, refusal] of [
    ["2.4", "x", /is no channel/],
    ["5 width", "30", /is no width for 5 GHz; write one of 20, 40, 80, 160/],
    ["6 width", "80", /no radio for 6 GHz/],
  ] as const) {
    expect(afterEdit(office, (context) => editRadioCell(context, point?.id ?? "", column, text))).toMatch(
      refusal,
    );
  }
});

test("a channel in a band without a radio makes one, and emptying it takes it out", () => {
  const [point] = points(office);
  const six = donePlan(afterEdit(office, (context) => editRadioCell(context, point?.id ?? "", "6", "auto")));
  expect([...six.radio.values()].filter((radio) => radio.device === point?.id).length).toBe(3);
  expect(
    donePlan(afterEdit(six, (context) => editRadioCell(context, point?.id ?? "", "6", ""))).radio,
  ).toEqual(office.radio);
  expect(
    radioCellText(
      [
        ...donePlan(
          afterEdit(office, (context) => editRadioCell(context, point?.id ?? "", "5", "off")),
        ).radio.values(),
      ].filter((radio) => radio.device === point?.id),
      "",
      "5",
    ),
  ).toBe("off");
});

test("what an access point's port lacks is what carry says of it, and clashes are those that are found", () => {
  const rows = pointRows(PlanIndex.of(office));
  expect(rows.find(({ device }) => device.name === "Office AP")?.missing).toEqual([90]);
  const clashing = rows
    .filter((row) => row.hears.some(({ clashes }) => clashes.length > 0))
    .map(({ device }) => device.name);
  expect(clashing).toEqual(["Office AP", "Waiting room AP"]);
});
