/* eslint-disable max-lines -- gear, its models, names, cables and roles share one made site */
import fc from "fast-check";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { listFindings, runChecks, sentenceOf } from "../../checks";
import { must } from "../../kernel";
import { emptyPlan, PlanIndex, type Device, type Plan, type Port } from "../../plan";
import { portCarries } from "../../forwarding";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { aSite } from "../../testing/build-plan";
import { addDevice, connectPorts } from "./add-device";
import { addStack } from "./add-stack";
import { cableLags, dissolveLag, labelCables, makeLag, setCable, setMedium, setOptic } from "./edit-cabling";
import { carryExactly } from "../ports/carry-vlan";
import { DEVICE_MODELS } from "../../catalogue";
import { editDevice } from "../site/set-fields";
import { makeWan, makeWayBack, parkInVlan } from "../ports/port-roles";
import { movePlug } from "./move-plug";
import { namesFromSightings, setSoftwareNames, sharedNames } from "../ports/software-names";
import { portsByRule } from "../ports/port-rules";
import { putModel, runsText, type ModelText } from "./own-models";
import { setConventions } from "../site/edit-site";

const office = fennelStreet();
const named = (plan: Plan, name: string): Device =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
const ports = (plan: Plan, name: string): readonly Port[] => PlanIndex.of(plan).portsOf(named(plan, name).id);
const port = (plan: Plan, name: string, label: string): Port =>
  must(
    ports(plan, name).find((port) => port.label === label),
    `${name} ${label}`,
  );
const free = (plan: Plan, name: string): Port[] =>
  ports(plan, name).filter((port) => {
    const index = PlanIndex.of(plan);
    return (
      index.linkAt(port.id) === undefined &&
      index.hostsAt(port.id).length === 0 &&
      !index.groups("interfacesByPort").has(port.id) &&
      port.note === ""
    );
  });
const codes = (plan: Plan): string[] =>
  listFindings(runChecks(PlanIndex.of(plan))).map((finding) => finding.key.split(" ")[0] ?? "");

describe("a stack of gear in one line", () => {
  test("three switches come with names by the pattern, a cable each, and trunks that carry alike", () => {
    const roomy = donePlan(
      afterEdit(office, (context) => addStack(context, "1 × 24-port switch in Cabinet A")),
    );
    const core = must(
      [...roomy.device.values()].find((device) => !office.device.has(device.id)),
      "the core",
    ).name;
    const plan = donePlan(
      afterEdit(roomy, (context) => addStack(context, `3 × 24-port PoE in Cabinet A, uplinks to ${core}`)),
    );
    const added = [...plan.device.values()].filter((device) => !roomy.device.has(device.id));
    expect(added.length).toBe(3);
    expect(new Set(added.map((device) => device.name)).size).toBe(added.length);
    for (const device of added) {
      expect([device.place, device.model, device.poeBudgetMw]).toEqual([
        "Cabinet A",
        "24-port PoE switch, 2 uplinks",
        185_000,
      ]);
      const index = PlanIndex.of(plan);
      const [uplink, ...others] = index
        .portsOf(device.id)
        .filter((port) => index.linkAt(port.id) !== undefined);
      expect(others).toEqual([]);
      const far = must(index.peerOf(must(uplink, "an uplink").id), "the far end");
      expect(plan.device.get(far.device)?.name).toBe(core);
      expect([far.pvid, far.tagged]).toEqual([uplink?.pvid, uplink?.tagged]);
      expect(uplink?.tagged.length).toBeGreaterThan(3);
    }
  });

  test.each([
    ["", /can't be read/],
    ["24-port PoE", /can't be read/],
    ["0 × 24-port PoE", /0 is no number/],
    ["99 x 24-port PoE", /99 is no number/],
    ["3 × hovercraft", /No model answers to "hovercraft"/],
    ["3 × 24-port PoE in Cabinet A, uplinks to Nowhere", /No device is called "Nowhere"/],
    ["40 × 8-port switch in Loft, uplinks to Switch B", /Switch B has no port left for number \d+ of 40/],
  ])("%j is refused with a sentence and changes nothing", (text, refusal) => {
    expect(afterEdit(office, (context) => addStack(context, text))).toMatch(refusal);
  });

  test("in an empty site the first stack stands alone; core is the switch beside the gateway", () => {
    const empty = emptyPlan(aSite());
    const first = donePlan(
      afterEdit(
        empty,
        (context) =>
          addDevice(context, { model: "gateway-4", name: "Gateway", place: "Hall" }) ??
          addStack(context, "1 x 24-port switch in Hall, uplinks to core"),
      ),
    );
    expect([...first.device.values()].map((device) => device.name)).toEqual(["Gateway", "Hall switch 1"]);
    const second = donePlan(
      afterEdit(first, (context) => addStack(context, "2 × 8-port switch in Loft, uplinks to core")),
    );
    const index = PlanIndex.of(second);
    const far = [...second.device.values()]
      .filter((device) => device.place === "Loft")
      .flatMap((device) => index.portsOf(device.id).flatMap((port) => index.peerOf(port.id) ?? []));
    expect(far.map((port) => second.device.get(port.device)?.name)).toEqual([
      "Hall switch 1",
      "Hall switch 1",
    ]);
  });

  test.each([
    "2x24-port PoE in Loft",
    "2 x 24-port PoE in Loft",
    "2 × 24-port PoE in Loft",
    "2 24-port PoE in Loft",
    "2*24-port PoE switches in Loft",
  ])("%j is read", (text) => {
    const plan = donePlan(afterEdit(office, (context) => addStack(context, text)));
    expect(
      [...plan.device.values()].filter((device) => device.place === "Loft").map((device) => device.model),
    ).toEqual(Array.from({ length: 2 }, () => "24-port PoE switch, 2 uplinks"));
  });

  test("every model of the catalogue is found by its own name, with as many ports as it says", () => {
    for (const model of DEVICE_MODELS) {
      const plan = donePlan(
        afterEdit(emptyPlan(aSite()), (context) => addStack(context, `1 × ${model.model} in Hall`)),
      );
      const [device] = plan.device.values();
      expect([device?.model, plan.port.size]).toEqual([
        model.model,
        model.runs.reduce((sum, run) => sum + run.count, 0),
      ]);
    }
  });
});

describe("models of one's own", () => {
  const text: ModelText = {
    name: "Barn switch",
    kind: "switch",
    bridging: "vlan",
    ports: "12 copper 2.5G type 3, 2 fibre 10G, 1 combo 1G named c",
    budgetW: "240",
    oneLostW: "",
    heightUnits: "1",
  };

  test("what is typed is what its devices have, and is read back as it was typed", () => {
    const plan = donePlan(afterEdit(office, (context) => putModel(context, null, text)));
    const [model] = plan.deviceModel.values();
    expect(runsText(model?.runs ?? [])).toBe(
      "12 copper 2.5G type 3 named e, 2 fibre 10G named f, 1 combo 1G named c",
    );
    const after = donePlan(
      afterEdit(plan, (context) =>
        addDevice(context, { model: model?.id ?? "", name: "Barn", place: "Barn" }),
      ),
    );
    const own = ports(after, "Barn");
    expect(own.map((port) => port.label)).toEqual(Array.from({ length: 15 }, (_, i) => String(i + 1)));
    expect(
      own.slice(10, 15).map((port) => [port.medium, port.speedMbps, port.poeMw, port.softwareName]),
    ).toEqual([
      ["copper", 2500, 60_000, "e10"],
      ["copper", 2500, 60_000, "e11"],
      ["fibre", 10_000, 0, "f0"],
      ["fibre", 10_000, 0, "f1"],
      ["combo", 1000, 0, "c0"],
    ]);
    // Read back and written again it is the same model.
    const again = donePlan(
      afterEdit(plan, (context) =>
        putModel(context, model?.id ?? "", { ...text, ports: runsText(model?.runs ?? []) }),
      ),
    );
    expect([...again.deviceModel.values()]).toEqual([model]);
  });

  test.each<[Partial<ModelText>, RegExp]>([
    [{ name: "" }, /Give the model a name/],
    [{ name: "24-port switch, 2 uplinks" }, /There is a model called/],
    [{ ports: "" }, /Write the ports/],
    [{ ports: "many copper" }, /is no run of ports/],
    [{ ports: "9999 copper" }, /is no run of ports/],
    [{ ports: "4 copper 3G" }, /is no run of ports/],
    [{ budgetW: "-1" }, /is no budget/],
    [{ oneLostW: "x" }, /is no budget/],
    [{ heightUnits: "99" }, /is no height/],
  ])("%j is refused", (part, refusal) => {
    expect(afterEdit(office, (context) => putModel(context, null, { ...text, ...part }))).toMatch(refusal);
  });
});

describe("names in the software", () => {
  test("two sightings at the ends of a run name all of it; what doesn't count evenly is left alone", () => {
    const own = ports(office, "Switch B");
    const lit = (label: string, softwareName: string) => ({
      port: must(
        own.find((port) => port.label === label),
        label,
      ).id,
      softwareName,
    });
    const names = (seen: readonly { port: string; softwareName: string }[]) =>
      own.flatMap((port) => namesFromSightings(own, seen).get(port.id) ?? []);
    expect(names([lit("1", "ge1"), lit("16", "ge16")])).toEqual(
      Array.from({ length: 16 }, (_, i) => `ge${i + 1}`),
    );
    expect(names([lit("4", "p01"), lit("1", "p04")])).toEqual(["p04", "p03", "p02", "p01"]);
    expect(names([lit("1", "ge1"), lit("4", "ge9")])).toEqual(["ge1", "ge9"]);
    expect(names([lit("1", "ge1"), lit("4", "te4")])).toEqual(["ge1", "te4"]);
  });

  test("names that follow never stand for two ports; a map that would is refused whole", () => {
    const own = ports(office, "Upper switch");
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(own.length - 1), fc.constantFrom("e", "g"), fc.nat(30)), {
          minLength: 1,
          maxLength: 5,
        }),
        (sightings) => {
          const seen = [
            ...new Map(
              sightings.map(([at, word, n]) => [
                own[at]?.id ?? "",
                { port: own[at]?.id ?? "", softwareName: `${word}${n}` },
              ]),
            ).values(),
          ];
          const result = afterEdit(office, (context) =>
            setSoftwareNames(context, named(office, "Upper switch").id, namesFromSightings(own, seen)),
          );
          if (typeof result === "string")
            return expect(result).toMatch(
              /would stand for ports .+ and .+; the software gives each port one name/,
            );
          expect(
            sharedNames(
              { all: ((kind: "port") => [...result[kind].values()]) as never },
              named(result, "Upper switch").id,
            ),
          ).toEqual([]);
          for (const { port: id, softwareName } of seen)
            expect(result.port.get(id)?.softwareName).toBe(softwareName);
        },
      ),
      { seed: 48, numRuns: 200 },
    );
  });
});

describe("cables", () => {
  test("labels by the pattern are never the same twice, whatever the pattern", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("{from}-{fromPort}", "{place}", "{n}", "{from} to {to}", "{place} {toPort}"),
        fc.constantFrom(fennelStreet, bramblewick, lockkeepersHouse),
        (pattern, make) => {
          const plan = donePlan(
            afterEdit(
              make(),
              (context) => setConventions(context, { cablePattern: pattern }) ?? labelCables(context),
            ),
          );
          const labels = [...plan.link.values()].map((link) => link.label.toLowerCase());
          expect(new Set(labels).size).toBe(labels.length);
          expect(labels.every((label) => label !== "")).toBe(true);
        },
      ),
      { numRuns: 15 },
    );
  });

  test("only the chosen cables get labels, and none of those that are there", () => {
    const before = donePlan(afterEdit(office, (context) => labelCables(context)));
    const [cable] = before.link.values();
    const after = donePlan(afterEdit(before, (context) => labelCables(context, new Set([cable?.id ?? ""]))));
    expect(after.link).toEqual(before.link);
  });

  test("a kind of cable goes with its medium, an optic with its port", () => {
    const [link] = [...office.link.values()].filter((link) => link.medium === "copper");
    const id = link?.id ?? "";
    expect(afterEdit(office, (context) => setCable(context, id, "om3"))).toBe(
      "A copper cable is not of that kind; change the medium first.",
    );
    const fibre = donePlan(
      afterEdit(office, (context) => {
        setMedium(context, id, "fibre");
        return setCable(context, id, "om3");
      }),
    );
    expect(
      donePlan(afterEdit(fibre, (context) => setMedium(context, id, "copper"))).link.get(id)?.cable,
    ).toBe("unknown");
    expect(
      afterEdit(office, (context) => setOptic(context, port(office, "Upper switch", "1").id, "10GBASE-SR")),
    ).toBe("Port 1 runs at up to 1000 Mbit/s and takes no 10GBASE-SR.");
  });

  test("a plug moved takes what it carried along; a port in use is refused", () => {
    const [target] = free(office, "Switch B");
    const from = port(office, "Switch B", "11");
    const plan = donePlan(afterEdit(office, (context) => movePlug(context, from.id, target?.id ?? "")));
    expect(PlanIndex.of(plan).peerOf(target?.id ?? "")?.device).toBe(named(plan, "Kennels AP").id);
    expect(plan.port.get(target?.id ?? "")?.tagged).toEqual(from.tagged);
    expect(plan.port.get(from.id)?.tagged).toEqual(target?.tagged);
    expect(
      afterEdit(office, (context) => movePlug(context, from.id, port(office, "Switch B", "17").id)),
    ).toMatch(/Port 17 is in use/);
  });
});

describe("several cables as one", () => {
  const pair = (plan: Plan, name: string) =>
    free(plan, name)
      .filter((port) => port.medium === "copper")
      .slice(0, 2)
      .map((port) => port.id);

  test("two LAGs made and cabled agree, carry the same, and taken apart leave no LAG behind", () => {
    const made = donePlan(
      afterEdit(
        office,
        (context) =>
          makeLag(context, pair(office, "Upper switch"), "active") ??
          makeLag(context, pair(office, "Switch B"), "passive"),
      ),
    );
    const lags = [...made.lag.values()];
    expect(lags.map((lag) => lag.name)).toEqual(["LAG 1", "LAG 1"]);
    const cabled = donePlan(
      afterEdit(made, (context) => cableLags(context, lags[0]?.id ?? "", lags[1]?.id ?? "")),
    );
    const carried = donePlan(afterEdit(cabled, (context) => carryExactly(context.edits, context.index)));
    expect(codes(carried).filter((code) => code.startsWith("lag"))).toEqual([]);
    for (const lag of lags) {
      const members = [...carried.port.values()].filter((port) => port.lag === lag.id);
      expect(members.map(({ pvid, tagged }) => [pvid, tagged])).toEqual(
        [members[0], members[0]].map((port) => [port?.pvid, port?.tagged]),
      );
    }
    expect(
      [...portCarries(PlanIndex.of(carried)).values()].filter(
        ({ missing, needless }) => missing.length + needless.length > 0,
      ),
    ).toEqual([]);
    const apart = donePlan(
      afterEdit(carried, (context) => {
        for (const lag of lags) dissolveLag(context, lag.id);
      }),
    );
    expect([apart.lag.size, [...apart.port.values()].filter((port) => port.lag !== null).length]).toEqual([
      0, 0,
    ]);
  });

  test("passive at both ends, or a protocol at one only, is found", () => {
    for (const modes of [
      ["passive", "passive"],
      ["static", "active"],
    ] as const) {
      const made = donePlan(
        afterEdit(
          office,
          (context) =>
            makeLag(context, pair(office, "Upper switch"), modes[0]) ??
            makeLag(context, pair(office, "Switch B"), modes[1]),
        ),
      );
      const [a, b] = made.lag.keys();
      const cabled = donePlan(afterEdit(made, (context) => cableLags(context, a ?? "", b ?? "")));
      const index = PlanIndex.of(cabled);
      expect(
        listFindings(runChecks(index))
          .map((finding) => sentenceOf(finding, index))
          .filter((text) => text.includes("LAG 1")).length,
      ).toBeGreaterThan(0);
    }
  });

  test("one port, ports of two devices, ports in use and ports of two speeds are refused", () => {
    const [a, b] = pair(office, "Upper switch");
    expect(afterEdit(office, (context) => makeLag(context, [a ?? ""], "active"))).toMatch(
      /takes two ports or more/,
    );
    expect(
      afterEdit(office, (context) =>
        makeLag(context, [a ?? "", pair(office, "Switch B")[0] ?? ""], "active"),
      ),
    ).toMatch(/on one device/);
    expect(
      afterEdit(office, (context) =>
        makeLag(context, [a ?? "", port(office, "Upper switch", "1").id], "active"),
      ),
    ).toMatch(/is used by an end device/);
    expect(
      afterEdit(office, (context) =>
        makeLag(context, [b ?? "", port(office, "Upper switch", "26").id], "active"),
      ),
    ).toMatch(/run at one speed/);
  });
});

describe("roles of whole selections", () => {
  test("parked ports are off and in the parked VLAN, which leads nowhere: nobody misses it on a trunk", () => {
    const rule = portsByRule(PlanIndex.of(office), { by: "unused" });
    expect(rule.length).toBeGreaterThan(8);
    const plan = donePlan(
      afterEdit(office, (context) =>
        parkInVlan(
          context,
          rule.map((port) => port.id),
        ),
      ),
    );
    const [parked] = [...plan.vlan.values()].filter((vlan) => vlan.purpose === "parked");
    for (const { id } of rule)
      expect(plan.port.get(id)).toMatchObject({ enabled: false, pvid: parked?.vid, tagged: [] });
    for (const { need } of portCarries(PlanIndex.of(plan)).values())
      expect(need.has(parked?.vid ?? 0)).toBe(false);
    expect([...plan.vlan.values()].filter((vlan) => vlan.purpose === "parked").length).toBe(1);
  });

  test("a rescue port is an access port in a VLAN of its own with a note; made twice it is one VLAN", () => {
    const [a, b] = free(office, "Upper switch");
    const plan = donePlan(
      afterEdit(donePlan(afterEdit(office, (context) => makeWayBack(context, [a?.id ?? ""]))), (context) =>
        makeWayBack(context, [b?.id ?? ""]),
      ),
    );
    const vlans = [...plan.vlan.values()].filter((vlan) => vlan.purpose === "wayBack");
    expect(vlans.length).toBe(1);
    for (const port of [a, b])
      expect(plan.port.get(port?.id ?? "")).toMatchObject({
        enabled: true,
        pvid: vlans[0]?.vid,
        note: "Way back in, keep free",
      });
  });

  test("a WAN port leaves every VLAN and holds the line; without a free line it is refused", () => {
    const [line] = office.line.keys();
    const [spare] = free(office, "Gateway");
    expect(
      afterEdit(office, (context) =>
        makeWan(context, [spare?.id ?? "", port(office, "Gateway", "2").id], [line ?? ""]),
      ),
    ).toMatch(/2 ports and one line/);
    const cabled = must(
      ports(office, "Gateway").find((port) => PlanIndex.of(office).linkAt(port.id) !== undefined),
      "a cabled port",
    );
    expect(afterEdit(office, (context) => makeWan(context, [cabled.id], [line ?? ""]))).toMatch(
      /has a cable to other gear/,
    );
    if (spare === undefined) return;
    const plan = donePlan(afterEdit(office, (context) => makeWan(context, [spare.id], [line ?? ""])));
    expect([...plan.interface.values()].filter((leg) => leg.line === line).map((leg) => leg.port)).toEqual([
      spare.id,
    ]);
    expect(plan.port.get(spare.id)).toMatchObject({ pvid: null, untagged: [], tagged: [] });
  });

  test("a rule picks what it says on every device, and never an access point's own port", () => {
    const index = PlanIndex.of(office);
    const byKind = portsByRule(index, { by: "hostKind", kind: "phone" });
    const truth = [...office.host.values()].filter(
      (host) => host.kind === "phone" && host.attachment.at === "port",
    ).length;
    expect(byKind.length).toBe(truth);
    expect(
      portsByRule(index, { by: "accessPoints" }).map(
        (port) => index.plan.device.get(index.peerOf(port.id)?.device ?? "")?.kind,
      ),
    ).toEqual(Array.from({ length: 4 }, () => "accessPoint"));
    for (const rule of [{ by: "uplinks" }, { by: "powered" }, { by: "undecided" }, { by: "unused" }] as const)
      for (const port of portsByRule(index, rule))
        expect(office.device.get(port.device)?.kind).not.toBe("accessPoint");
    const only = portsByRule(index, { by: "powered" }, new Set([named(office, "Switch B").id]));
    expect(new Set(only.map((port) => port.device))).toEqual(new Set([named(office, "Switch B").id]));
  });
});

test("numbers of a device are held to what they can be, and a rack unit gives it a height", () => {
  const { id } = named(office, "Switch B");
  for (const [field, text] of [
    ["rackUnit", "0"],
    ["rackUnit", "x"],
    ["heightUnits", "61"],
    ["poeBudget", "-3"],
    ["poeBudget", "1e9"],
    ["maxVlans", "4095"],
    ["maxVlans", "1.5"],
    ["poeOneLost", "lots"],
  ] as const) {
    expect(afterEdit(office, (context) => editDevice(context, id, field, text))).toMatch(/^"/);
  }
  const plan = donePlan(
    afterEdit(
      office,
      (context) =>
        editDevice(context, id, "poeBudget", "370,5") ??
        editDevice(context, id, "maxVlans", "64") ??
        editDevice(context, id, "poeOneLost", ""),
    ),
  );
  expect(plan.device.get(id)).toMatchObject({
    poeBudgetMw: 370_500,
    poeOneLostMw: null,
    abilities: { maxVlans: 64 },
  });
});

test("a cable between a port and itself, or to a port in use, is refused", () => {
  const own = port(office, "Switch B", "11");
  expect(afterEdit(office, (context) => connectPorts(context, own.id, own.id))).toMatch(/two ends/);
  expect(
    afterEdit(office, (context) => connectPorts(context, own.id, port(office, "Upper switch", "26").id)),
  ).toMatch(/has a cable already/);
});
