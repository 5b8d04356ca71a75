import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { ipv4 } from "../address";
import { must } from "../kernel";
import { PlanIndex, USUAL_ABILITIES, type Plan, type Segment } from "../plan";
import { carryExactly, makeTunnel, setWall } from "../planners";
import { asClient, probe } from "../probe";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { differenceAt, intendedAt, reachAt, reachMatrix, reachSentence, reachTable } from "./matrix";
import { reachOfHost } from "./host-reach";

const whole = (plan: Plan): Plan =>
  donePlan(afterEdit(plan, ({ edits, index }) => carryExactly(edits, index)));
const sites = { "the cider works": bramblewick, "the practice": fennelStreet, "the house": lockkeepersHouse };
const ids = () => testId("new", "one");
const hostOf = (index: PlanIndex, segment: Segment) =>
  index
    .hostsIn(segment.id)
    .find(
      (host) => probe(index, asClient({ at: "host", host: host.id }, { to: "address" }), ids).cause === null,
    );

test.each(Object.entries(sites))(
  "%s: every cell says what probes from one of the segment's hosts find",
  (_, make) => {
    const index = PlanIndex.of(whole(make()));
    const matrix = reachMatrix(index);
    let asked = 0;
    for (const [i, row] of matrix.rows.entries()) {
      const from = hostOf(index, row);
      if (from === undefined) continue;
      for (const [j, column] of matrix.columns.entries()) {
        const to = typeof column === "string" ? undefined : hostOf(index, column);
        if (i === j || column === "gateway" || (typeof column !== "string" && to === undefined)) continue;
        const outcome = probe(
          index,
          asClient(
            { at: "host", host: from.id },
            column === "internet"
              ? { to: "internet", service: null }
              : { to: "host", host: to?.id ?? "", service: null },
          ),
          ids,
        );
        const reach = reachAt(matrix, i, j);
        asked += 1;
        expect([
          row.name,
          typeof column === "string" ? column : column.name,
          reach,
          outcome.cause === null,
        ]).toEqual([
          row.name,
          typeof column === "string" ? column : column.name,
          reach,
          reach === "open" || reach === "services",
        ]);
      }
    }
    expect(asked).toBeGreaterThan(15);
  },
);

const cell = (plan: Plan, from: string, to: string) => {
  const index = PlanIndex.of(plan);
  const matrix = reachMatrix(index);
  const [i, j] = [
    matrix.rows.findIndex((row) => row.name === from),
    matrix.columns.findIndex((column) => (typeof column === "string" ? column : column.name) === to),
  ];
  return {
    reach: reachAt(matrix, i, j),
    intended: intendedAt(matrix, i, j),
    difference: differenceAt(matrix, i, j),
    says: reachSentence(index, matrix, i, j),
  };
};

test("as the sites stand nothing gets further than is intended, and what is closed is said to be", () => {
  for (const make of Object.values(sites)) {
    const matrix = reachMatrix(PlanIndex.of(make()));
    expect(
      matrix.rows.flatMap((row, i) =>
        matrix.columns.flatMap((column, j) =>
          differenceAt(matrix, i, j) === "more" ? [[row.name, column]] : [],
        ),
      ),
    ).toEqual([]);
  }
  expect(cell(bramblewick(), "Vendor", "Tank farm")).toMatchObject({
    reach: "closed",
    difference: null,
    says: "Vendor can't start anything to Tank farm: the wall is closed.",
  });
  expect(cell(bramblewick(), "Operations", "Tank farm").says).toBe(
    "From Operations to Tank farm: opc ua only.",
  );
  expect(cell(bramblewick(), "Safety", "Office")).toMatchObject({ reach: "nothing", difference: null });
});

test("routing switches go past the walls, a native mismatch joins two, no gateway gets nowhere", () => {
  const office = bramblewick();
  const segmentOf = (name: string) =>
    must(
      [...office.segment.values()].find((segment) => segment.name === name),
      name,
    );
  const deviceOf = (name: string) =>
    must(
      [...office.device.values()].find((device) => device.name === name),
      name,
    );
  const routed = donePlan(
    afterEdit(office, ({ edits, ids: make }) => {
      const device = deviceOf("Office switch");
      edits.patch("device", device.id, { abilities: { ...USUAL_ABILITIES, routes: true } });
      for (const name of ["Office", "Vendor"]) {
        const segment = segmentOf(name);
        const known = must(office.interface.get(segment.gatewayInterface ?? ""), "a leg");
        const leg = {
          ...known,
          id: make(),
          device: device.id,
          addresses4: [must(ipv4(must(known.addresses4[0], "an address") + 5), "an address")],
        };
        edits.put("interface", leg);
        edits.patch("segment", segment.id, { gatewayInterface: leg.id });
      }
    }),
  );
  expect(cell(routed, "Vendor", "Office")).toMatchObject({
    reach: "past the walls",
    intended: "closed",
    difference: "more",
    says: expect.stringMatching(/does not filter, and it is meant to be closed/),
  });
  const joined = donePlan(
    afterEdit(office, ({ edits }) => {
      const port = must(
        [...office.port.values()].find(
          (port) => port.label === "2" && office.device.get(port.device)?.name === "Office switch",
        ),
        "the point's port",
      );
      const [vendor, kit] = ["Vendor", "Kit"].map(
        (name) =>
          must(
            [...office.vlan.values()].find((vlan) => vlan.name === name),
            name,
          ).vid,
      );
      edits.patch("port", port.id, {
        pvid: must(vendor, "Vendor"),
        untagged: [must(vendor, "Vendor")],
        tagged: [...port.tagged, must(kit, "Kit")],
      });
    }),
  );
  expect(cell(joined, "Vendor", "Kit")).toMatchObject({ reach: "one network", difference: "more" });
  const cut = donePlan(
    afterEdit(office, ({ edits }) =>
      edits.patch("segment", segmentOf("Operations").id, { gatewayInterface: null }),
    ),
  );
  expect(cell(cut, "Operations", "Tank farm")).toMatchObject({ reach: "nothing", difference: "less" });
  const opened = donePlan(
    afterEdit(office, ({ edits, ids: make }) =>
      setWall(edits, make, {
        from: { at: "zone", zone: segmentOf("Vendor").zone },
        to: { at: "zone", zone: segmentOf("Office").zone },
        door: "open",
        services: [],
        reason: "for a day",
      }),
    ),
  );
  expect(cell(opened, "Vendor", "Office").says).toBe("Vendor may start anything to Office: for a day.");
});

test("from one host to everything: a device of each segment, the pages of the gear, the internet", () => {
  const plan = fennelStreet();
  const index = PlanIndex.of(plan);
  const desk = must(
    [...plan.host.values()].find((host) => host.name === "PC Reception 1"),
    "a desk",
  );
  const found = reachOfHost(index, desk);
  expect(
    found
      .filter((hostReach) => hostReach.group === "segment")
      .map((hostReach) => hostReach.name.split(",")[0]),
  ).toEqual(["Building", "Cameras", "Cards", "Imaging", "Phones", "Servers", "Staff"]);
  expect(found.find((hostReach) => hostReach.name === "Switch B")).toMatchObject({
    passes: false,
    why: expect.stringMatching(/wall Practice to Kit is closed/),
  });
  expect(found[0]).toMatchObject({ group: "outside", passes: true });
});

test("the table for a file has every row and column and says where it differs", () => {
  const table = reachTable(reachMatrix(PlanIndex.of(bramblewick())));
  expect(new Set(table.map((row) => row.length)).size).toBe(1);
  expect(table[0]?.slice(-2)).toEqual(["the internet", "the gateway's pages"]);
  expect(table.length).toBe(bramblewick().segment.size + 1);
});

test("what lies behind a tunnel reaches what a probe from there reaches, and is reached", () => {
  const home = lockkeepersHouse();
  const gateway = must(
    [...home.device.values()].find(({ kind }) => kind === "gateway"),
    "the gateway",
  );
  const plan = donePlan(
    afterEdit(home, ({ edits, ids: make }) => {
      const tunnel = makeTunnel({ edits, ids: make }, { name: "Workshop", device: gateway.id, kind: "site" });
      if (typeof tunnel === "string") return tunnel;
      const studio = must(
        [...home.segment.values()].find(({ name }) => name === "Studio"),
        "the studio",
      );
      const [there, here] = [tunnel.zone, studio.zone].map((zone) => ({ at: "zone" as const, zone }));
      for (const [from, to] of [
        [there, here],
        [here, there],
        [there, { at: "internet" as const }],
      ] as const)
        if (from !== undefined && to !== undefined)
          setWall(edits, make, { from, to, door: "open", services: [], reason: "" });
      return null;
    }),
  );
  expect(cell(plan, "Workshop", "Studio")).toMatchObject({ reach: "open", difference: null });
  expect(cell(plan, "Studio", "Workshop")).toMatchObject({ reach: "open", difference: null });
  expect(cell(plan, "Workshop", "the internet")).toMatchObject({ reach: "open", difference: null });
  expect(cell(plan, "Workshop", "Household").reach).toBe("closed");
});
