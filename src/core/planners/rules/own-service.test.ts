import fc from "fast-check";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { applyChanges, nameOf, PlanIndex, type Plan, type Service } from "../../plan";
import { catalogueOf, SERVICES, servicesCalled } from "../../policy";
import { afterEdit, donePlan } from "../../testing/after-edit";
import type { EditContext, Refusal } from "../planner";
import { leadDoorTo } from "../segments/set-wall";
import { pasteServices, removeServices, serviceCellText, type ServiceColumn } from "./own-service";
import { readServices, servicesText } from "./service-list-text";

const asked = (plan: Plan, edit: (context: EditContext) => Refusal): Plan => donePlan(afterEdit(plan, edit));
const refusedBy = (plan: Plan, edit: (context: EditContext) => Refusal): string | null => {
  const result = afterEdit(plan, edit);
  return typeof result === "string" ? result : null;
};
const rows =
  (...all: string[][]) =>
  (context: EditContext) =>
    pasteServices(context, all, "name", []);
const named = (plan: Plan, name: string) =>
  must(
    [...plan.service.values()].find((service) => service.name === name),
    name,
  );
const write = (plan: Plan, name: string, column: ServiceColumn, text: string) =>
  asked(plan, (context) => pasteServices(context, [[text]], column, [named(plan, name).id]));
const isOf = (plan: Plan, name: string) => serviceCellText(named(plan, name), "is");
/** The practice with a wall that lets a service of its own through. */
const withWall = (plan: Plan, name: string): Plan => {
  const [wall] = plan.wall.values();
  const services = readServices(PlanIndex.of(plan), name);
  return asked(plan, ({ edits }) => {
    edits.patch("wall", must(wall, "a wall").id, {
      door: "services",
      services: typeof services === "string" ? [] : [...services],
    });
    return null;
  });
};
const wallServices = (plan: Plan): readonly Service[] => must([...plan.wall.values()][0], "a wall").services;
const base = () =>
  asked(
    fennelStreet(),
    rows(["scan", "tcp 8007, 8009, udp 5000-5010", "x-ray"], ["office", "https, dns, scan"]),
  );

test("a service takes in others, one entry a protocol, and is written anywhere by its name", () => {
  const plan = base();
  expect(servicesCalled(plan, "office")).toEqual([
    {
      name: "office",
      protocol: "tcp",
      ports: [
        [53, 53],
        [443, 443],
        [8007, 8007],
        [8009, 8009],
      ],
    },
    {
      name: "office",
      protocol: "udp",
      ports: [
        [53, 53],
        [5000, 5010],
      ],
    },
  ]);
  const index = PlanIndex.of(plan);
  const read = must(readServices(index, "office, ssh"), "it reads");
  expect(typeof read === "string" ? read : servicesText(index, read)).toBe("office, ssh");
  expect(isOf(plan, "office")).toBe("https, dns, scan");
  expect(isOf(plan, "scan")).toBe("tcp 8007, tcp 8009, udp 5000-5010");
});

test("what is half of a name is said by its ports", () => {
  const index = PlanIndex.of(fennelStreet());
  const half = SERVICES.filter(({ name, protocol }) => name === "dns" && protocol === "udp");
  expect(servicesText(index, half)).toBe("dns udp 53");
});

test("a change goes wherever the service is used, through what takes it in; what differs is left", () => {
  const plan = withWall(base(), "office");
  const after = write(plan, "scan", "is", "tcp 9000");
  expect(wallServices(after)).toEqual(servicesCalled(after, "office"));
  expect(wallServices(after).flatMap(({ ports }) => ports)).toContainEqual([9000, 9000]);
  const own = asked(plan, ({ edits }) => {
    edits.patch("wall", must([...plan.wall.keys()][0], "a wall"), {
      services: wallServices(plan).slice(0, 1),
    });
    return null;
  });
  expect(wallServices(write(own, "scan", "is", "tcp 9000"))).toEqual(wallServices(own));
});

test("a new name goes wherever it is used", () => {
  const plan = withWall(base(), "office, scan");
  const after = write(plan, "scan", "name", "X-Ray");
  expect(new Set(wallServices(after).map(({ name }) => name))).toEqual(new Set(["office", "x-ray"]));
  expect(isOf(after, "office")).toBe("https, dns, x-ray");
});

test("removed, its ports stay in walls, and in what took it in", () => {
  const plan = withWall(base(), "scan");
  const after = asked(plan, (context) => removeServices(context, [named(plan, "scan").id]));
  expect(wallServices(after)).toEqual(wallServices(plan));
  expect(isOf(after, "office")).toBe("https, dns, tcp 8007, tcp 8009, udp 5000-5010");
  expect(servicesCalled(after, "office")).toEqual(servicesCalled(plan, "office"));
});

test.each([
  [["dns", "tcp 53"], /dns is in the catalogue already/],
  [["scan", "tcp 1"], /There is a service scan already/],
  [["tcp 9", "tcp 9"], /begins like ports/],
  [["Büro", "tcp 9"], /can't name a service/],
  [["new", "nothing like it"], /is not a service/],
  [["new", "tcp 70000"], /is not a service/],
  [["new", ""], /needs its name and what it is/],
  [["new", Array.from({ length: 17 }, (_, at) => `tcp ${at + 1}`).join(", ")], /at most 16 names and 16/],
  [["new", "tcp 1", "n".repeat(121)], /At most 120/],
])("%j is refused, and nothing is written", (row, why) => {
  expect(refusedBy(base(), rows(row))).toMatch(why);
});

test("a service never takes in itself, by whatever way", () => {
  const plan = base();
  const id = named(plan, "scan").id;
  expect(refusedBy(plan, (context) => pasteServices(context, [["office"]], "is", [id]))).toMatch(
    /scan would take in itself: scan takes in office takes in scan/,
  );
});

test("circles that two people made together end", () => {
  const plan = base();
  const merged = asked(plan, ({ edits }) => {
    edits.patch("service", named(plan, "scan").id, { includes: ["office"] });
    return null;
  });
  expect(servicesCalled(merged, "scan").length).toBeGreaterThan(0);
  expect(catalogueOf(merged).length).toBeGreaterThan(SERVICES.length);
});

test("any pieces, written as they are said, are the same service", () => {
  const port = fc.integer({ min: 1, max: 65_535 });
  const piece = fc.oneof(
    fc.constantFrom("https", "dns", "print", "icmp"),
    fc.tuple(fc.constantFrom("tcp", "udp"), port).map(([protocol, at]) => `${protocol} ${at}`),
    fc
      .tuple(fc.constantFrom("tcp", "udp"), port, port)
      .map(([protocol, a, b]) => `${protocol} ${Math.min(a, b)}-${Math.max(a, b)}`),
  );
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 12 }), (pieces) => {
      const plan = asked(fennelStreet(), rows(["some thing", pieces.join(", ")]));
      const again = write(plan, "some thing", "is", isOf(plan, "some thing"));
      expect(named(again, "some thing")).toEqual(named(plan, "some thing"));
    }),
    { numRuns: 60 },
  );
});

test("what stood on a device stays what it is", () => {
  const plan = base();
  const [rule] = plan.rule.values();
  const known = must(rule, "a rule");
  const services = [...servicesCalled(plan, "scan")];
  const applied = applyChanges(plan, [
    { kind: "rule", id: known.id, before: known, after: { ...known, id: known.id, services } },
  ]);
  const ruled = must(applied.ok ? applied.value : null, "it stands");
  expect(write(ruled, "scan", "is", "tcp 9000").rule.get(known.id)?.services).toEqual(services);
});

test("ports are read as sentences say them", () => {
  const index = PlanIndex.of(fennelStreet());
  const said = readServices(index, "TCP 1024 to 3388, 3390 to 4839 and 4841, dns");
  const typed = readServices(index, "tcp 1024-3388, tcp 3390-4839, tcp 4841, dns");
  expect(said).toEqual(typed);
  expect(typeof said === "string" ? said : said.length).toBe(5);
});

test("a wall that would be of too many services is named, and nothing changes", () => {
  const plan = asked(fennelStreet(), rows(["scan", "tcp 8007"]));
  const other = asked(withWall(plan, "scan"), ({ edits }) => {
    const wall = must(
      edits.all("wall").find(({ services }) => services.some(({ name }) => name === "scan")),
      "it",
    );
    const more = Array.from({ length: 31 }, (_, at) => ({
      name: `more ${at}`,
      protocol: "tcp" as const,
      ports: [[9000 + at, 9000 + at]] as [number, number][],
    }));
    edits.patch("wall", wall.id, { services: [...wall.services, ...more] });
    return null;
  });
  const full = must(
    [...other.wall.values()].find(({ services }) => services.length === 32),
    "the full one",
  );
  const name = nameOf(PlanIndex.of(other), "wall", full.id);
  expect(
    refusedBy(other, (context) =>
      pasteServices(context, [["tcp 8007, 8009, udp 5000-5010"]], "is", [named(other, "scan").id]),
    ),
  ).toBe(`${name} would be of 33 services, and takes 32; take some out of it first.`);
});

test("a wall keeps its reason and its conduit when it is led to another end", () => {
  const plan = fennelStreet();
  const [wall] = plan.wall.values();
  const { id, from } = must(wall, "a wall");
  const other = must(
    [...plan.zone.keys()].find(
      (zone) => ![...plan.wall.values()].some(({ to }) => to.at === "zone" && to.zone === zone),
    ),
    "a zone without a door",
  );
  const after = asked(plan, ({ edits, ids }) => {
    const conduit = ids();
    edits.put("conduit", { id: conduit, name: "By the DMZ", securityLevel: 0, owner: "", note: "" });
    edits.patch("wall", id, { reason: "orders", conduit });
    return leadDoorTo(edits, id, { at: "zone", zone: other });
  });
  const conduit = must(
    [...after.conduit.values()].find(({ name }) => name === "By the DMZ"),
    "it",
  ).id;
  expect(after.wall.get(id)).toMatchObject({
    from,
    to: { at: "zone", zone: other },
    reason: "orders",
    conduit,
  });
});

test("a door led to where one leads already joins it, with both reasons", () => {
  const plan = fennelStreet();
  const [zone = "", target = ""] = [...plan.zone.keys()];
  const services = (name: string, port: number) => [
    { name, protocol: "tcp" as const, ports: [[port, port]] as [number, number][] },
  ];
  const after = asked(plan, ({ edits, ids }) => {
    for (const { id } of edits.all("wall")) edits.remove("wall", id);
    const [first, second] = [ids(), ids()];
    const end = { at: "zone", zone } as const;
    edits.put("wall", {
      id: first,
      from: end,
      to: { at: "internet" },
      door: "services",
      services: services("a", 1),
      reason: "one",
      conduit: null,
    });
    edits.put("wall", {
      id: second,
      from: end,
      to: { at: "zone", zone: target },
      door: "services",
      services: services("b", 2),
      reason: "two",
      conduit: null,
    });
    return leadDoorTo(edits, first, { at: "zone", zone: target });
  });
  expect([...after.wall.values()]).toMatchObject([
    {
      to: { at: "zone", zone: target },
      services: [...services("b", 2), ...services("a", 1)],
      reason: "two; one",
    },
  ]);
});
