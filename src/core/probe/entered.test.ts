import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress, parseMac } from "../address";
import { must } from "../kernel";
import { PlanIndex, type PlanEdits, type Host, type Plan } from "../plan";
import { failureName, FailureStudy, singleFailures } from "../failure";
import {
  editHostCell,
  removeDevice,
  removeLeg,
  renumber,
  setAsksFrom,
  setLegAddress,
  setOutside,
  setOwnNetwork,
} from "../planners";
import { TREE } from "../spanning-tree";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { ip } from "../testing/written";
import { asClient, probe } from "./probe";
import { tryRepairs } from "./tried";

// What is entered by hand on a host, a line or a bridge, and what comes of it.

const office = fennelStreet();
const home = lockkeepersHouse();
const ids = () => testId("new", "one");
const edited = (plan: Plan, edit: (edits: PlanEdits) => void): Plan =>
  donePlan(afterEdit(plan, ({ edits }) => edit(edits)));
const hostOf = (plan: Plan, name: string) =>
  must(
    [...plan.host.values()].find((host) => host.name === name),
    name,
  );
const deviceOf = (plan: Plan, name: string) =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
const withHost = (name: string, fields: Partial<Host>) =>
  edited(office, (edits) => {
    edits.patch("host", hostOf(office, name).id, fields);
  });
const asks = (plan: Plan, name: string, to: "internet" | "Sign-in server 1") =>
  probe(
    PlanIndex.of(plan),
    asClient(
      { at: "host", host: hostOf(plan, name).id },
      to === "internet" ? { to, service: null } : { to: "host", host: hostOf(plan, to).id, service: null },
    ),
    ids,
  );

describe("a static host's own network", () => {
  test("another router's address as its gateway leads nowhere; nothing but that is wrong", () => {
    expect(asks(office, "Image store", "internet").lease?.gateway).toBe(ip("10.24.40.1"));
    const lost = asks(withHost("Image store", { gateway4: ip("10.24.40.9") }), "Image store", "internet");
    expect([lost.lease?.gateway, lost.cause?.sentence]).toEqual([
      ip("10.24.40.9"),
      "Image store has 10.24.40.9 entered as its gateway, which " +
        "no router in Imaging has; the gateway there is 10.24.40.1.",
    ]);
  });

  test("a mask that is too short makes strangers neighbours: it asks for them and nobody answers", () => {
    const wide = asks(withHost("Image store", { length4: 8 }), "Image store", "Sign-in server 1");
    expect(wide.lease?.mask).toBe("255.0.0.0");
    expect(wide.cause?.sentence).toBe(
      "Image store has /8 entered as its mask; Imaging has /26. So it takes " +
        "10.24.60.8 for a neighbour and asks nobody who could send it on.",
    );
    expect(tryRepairs(PlanIndex.of(withHost("Image store", { length4: 8 })), wide, ids)[0]?.result).toBe(
      "passes",
    );
  });

  test("what it has entered for names is what it shows, and a host by DHCP is told all of it", () => {
    const own = { dns: [ip("10.24.10.1")], gateway4: ip("10.24.40.9"), length4: 8 };
    expect(
      asks(withHost("Image store", { dns: own.dns }), "Image store", "internet").lease?.dns.map(
        formatAddress,
      ),
    ).toEqual(["10.24.10.1"]);
    expect(asks(withHost("Analyser", own), "Analyser", "internet").lease).toEqual(
      asks(office, "Analyser", "internet").lease,
    );
  });

  test("Failures know its gateway as probes do", () => {
    const plan = withHost("Image store", { gateway4: ip("10.24.40.9") });
    const [study, store] = [new FailureStudy(PlanIndex.of(plan)), hostOf(plan, "Image store").id];
    expect(
      singleFailures(PlanIndex.of(plan))
        .map((failure) => [
          failureName(PlanIndex.of(plan), failure),
          study.fail([failure]).noGateway.includes(store),
        ])
        .filter(([, lost]) => lost),
    ).toEqual([]);
  });

  test("its gateway and name servers move with the subnet they lie in, and with the leg that has them", () => {
    const plan = withHost("Image store", { gateway4: ip("10.24.40.1"), dns: [ip("10.24.60.10")] });
    const [imaging, servers] = ["Imaging", "Servers"].map((name) =>
      must(
        [...plan.segment.values()].find((segment) => segment.name === name),
        name,
      ),
    );
    const moves = [imaging, servers].map((segment, i) => {
      const from = must(segment?.prefixes4[0], "a subnet");
      return { segment: must(segment, "it").id, from, to: { ...from, network: ip(`10.24.${100 + i}.0`) } };
    });
    const there = edited(plan, (edits) => {
      renumber(edits, moves);
    });
    expect([hostOf(there, "Image store").gateway4, hostOf(there, "Image store").dns]).toEqual([
      ip("10.24.100.1"),
      [ip("10.24.101.10")],
    ]);
    const back = edited(there, (edits) => {
      renumber(
        edits,
        moves.map(({ segment, from, to }) => ({ segment, from: to, to: from })),
      );
    });
    expect(back.host).toEqual(plan.host);
    const moved = donePlan(
      afterEdit(plan, (context) => setLegAddress(context, must(imaging?.gatewayInterface, "a leg"), ".62")),
    );
    expect(hostOf(moved, "Image store").gateway4).toBe(ip("10.24.40.62"));
  });

  test.each([
    ["length4", "/33", /no mask/],
    ["gateway4", "fd00::1", /not one IPv4 address/],
    ["gateway4", "10.24.40.1 10.24.40.2", /not one IPv4 address/],
    ["gateway6", "10.24.40.1", /not one IPv6 address/],
    ["length6", "64.64", /no prefix length/],
    ["dns", "gateway", /is not an address/],
  ] as const)("%s does not take %s", (field, text, says) => {
    expect(
      afterEdit(office, (context) => setOwnNetwork(context, hostOf(office, "Image store").id, field, text)),
    ).toMatch(says);
  });
});

test("a line's own network is read as people write it", () => {
  const line = must([...office.line.values()][0], "a line").id;
  const plan = donePlan(
    afterEdit(
      office,
      (context) =>
        setOutside(context, line, "length4", "255.255.255.248") ??
        setOutside(context, line, "nextHop4", "203.0.113.89") ??
        setOutside(context, line, "nextHop6", "fe80::1") ??
        setOutside(context, line, "dns", "203.0.113.53, 2001:db8::53"),
    ),
  );
  expect(plan.line.get(line)).toMatchObject({
    length4: 29,
    nextHop4: ip("203.0.113.89"),
    dns: { length: 2 },
  });
});

test("of equal priorities the lower bridge MAC address is the root, whichever leg has a lower one", () => {
  const root = (upper: string, lower: string) => {
    const plan = edited(office, (edits) => {
      for (const name of ["Upper switch", "Lower switch", "Switch B", "Gateway"])
        edits.patch("device", deviceOf(office, name).id, {
          tree: {
            ...deviceOf(office, name).tree,
            kind: name === "Gateway" ? "none" : "rapid",
            priority: 32_768,
          },
          bridgeMac: null,
        });
      edits.patch("device", deviceOf(office, "Upper switch").id, { bridgeMac: parseMac(upper) });
      edits.patch("device", deviceOf(office, "Lower switch").id, { bridgeMac: parseMac(lower) });
      for (const leg of edits.all("interface"))
        if (leg.device === deviceOf(office, "Upper switch").id)
          edits.patch("interface", leg.id, { mac: parseMac("02:00:00:00:00:01") });
    });
    const index = PlanIndex.of(plan);
    const tree = index.derived(TREE);
    return must(tree.rootOf.get(deviceOf(plan, "Switch B").id), "a root").id;
  };
  expect(root("02:5a:00:00:00:01", "02:5a:00:00:00:02")).toBe(deviceOf(office, "Upper switch").id);
  expect(root("02:5a:00:00:00:02", "02:5a:00:00:00:01")).toBe(deviceOf(office, "Lower switch").id);
});

describe("where a station joins", () => {
  const passes = (plan: Plan, name: string) =>
    probe(
      PlanIndex.of(plan),
      asClient({ at: "host", host: hostOf(plan, name).id }, { to: "internet", service: null }),
      ids,
    ).steps.flatMap((step) => step.device ?? []);

  test("at the access point of the plan; at another when that does not offer the name, or goes", () => {
    const at = (point: string) =>
      donePlan(
        afterEdit(office, (context) =>
          editHostCell(context, hostOf(office, "Staff laptop 1").id, "port", `fennel staff at ${point}`),
        ),
      );
    for (const point of ["Kennels AP", "Office AP"])
      expect(passes(at(point), "Staff laptop 1")).toContain(deviceOf(office, point).id);
    const plan = at("Kennels AP");
    const elsewhere = edited(plan, (edits) => {
      const { attachment } = hostOf(plan, "Staff laptop 1");
      if (attachment.at === "ssid")
        edits.patch("ssid", attachment.ssid, { at: [deviceOf(plan, "Office AP").id] });
    });
    expect(passes(elsewhere, "Staff laptop 1")).toContain(deviceOf(office, "Office AP").id);
    const gone = edited(plan, (edits) => removeDevice(edits, deviceOf(plan, "Kennels AP").id));
    expect(hostOf(gone, "Staff laptop 1").attachment).toMatchObject({ at: "ssid", accessPoint: null });
  });

  test('an access point that is none, and a name that has " at " in it', () => {
    expect(
      afterEdit(office, (context) =>
        editHostCell(context, hostOf(office, "Staff laptop 1").id, "port", "Fennel Staff at Upper switch"),
      ),
    ).toMatch(/is no port, wireless name or device here/);
    const cafe = edited(home, (edits) =>
      edits.patch(
        "ssid",
        must(
          [...home.ssid.values()].find((ssid) => ssid.name === "Lock House"),
          "it",
        ).id,
        { name: "Coffee at Lock" },
      ),
    );
    const plan = donePlan(
      afterEdit(cafe, (context) =>
        editHostCell(context, hostOf(cafe, "tablet").id, "port", "coffee at lock at studio ap"),
      ),
    );
    expect(hostOf(plan, "tablet").attachment).toMatchObject({
      at: "ssid",
      accessPoint: deviceOf(plan, "Studio AP").id,
    });
  });
});

describe("where a device asks from", () => {
  /** The upper switch with a leg among the phones, too, from which the sign-in servers are behind a wall. */
  const legs = edited(office, (edits) => {
    const phones = must(
      [...office.segment.values()].find((segment) => segment.name === "Phones"),
      "Phones",
    );
    const leg = must(
      [...office.interface.values()].find((leg) => leg.device === deviceOf(office, "Upper switch").id),
      "its leg",
    );
    edits.put("interface", {
      ...leg,
      id: testId("interface", "among phones"),
      segment: phones.id,
      name: "Phones",
      addresses4: [ip("10.24.30.5")],
    });
  });
  const upper = deviceOf(office, "Upper switch").id;
  const signs = (plan: Plan) => asks(plan, "PC Reception 1", "internet").cause?.sentence ?? null;

  test("the answer comes back to the leg that is chosen, through its walls", () => {
    const from = (leg: string) => donePlan(afterEdit(legs, (context) => setAsksFrom(context, upper, leg)));
    const kit = must(
      [...legs.interface.values()].find((leg) => leg.device === upper && leg.name !== "Phones"),
      "the Kit leg",
    ).id;
    expect([signs(from(kit)), signs(from(testId("interface", "among phones")))]).toEqual([
      null,
      expect.stringMatching(/^Upper switch (asks|does not reach) Sign-in server 1/),
    ]);
  });

  test("a leg of another device is refused; one that goes is not asked from any more", () => {
    const gateway = must(
      [...office.interface.values()].find((leg) => leg.device === deviceOf(office, "Gateway").id),
      "a leg",
    ).id;
    expect(afterEdit(office, (context) => setAsksFrom(context, upper, gateway))).toBe(
      "Choose one of its own addresses.",
    );
    const chosen = donePlan(
      afterEdit(legs, (context) => setAsksFrom(context, upper, testId("interface", "among phones"))),
    );
    expect(
      edited(chosen, (edits) => removeLeg({ edits }, testId("interface", "among phones"))).device.get(upper)
        ?.asksFrom,
    ).toBeNull();
  });
});
