import fc from "fast-check";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { parsePrefix } from "../../address";
import { must } from "../../kernel";
import { BLANK_FORWARD, PlanIndex, type Forward, type Plan } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { testId } from "../../testing/build-plan";
import { FORWARD_COLUMNS, forwardCellText, pasteForwards, readForwardCell } from "./forward-cell";
import { pasteRoutes, removeRoutes, routeCellText, type RouteColumn } from "./route-cell";

const home = lockkeepersHouse();
const index = PlanIndex.of(home);
const device = must(
  [...home.device.values()].find(({ kind }) => kind === "gateway"),
  "the gateway",
).id;
const forwardsOf = (plan: Plan) => [...plan.forward.values()];

describe("a forward's cells", () => {
  const forward: fc.Arbitrary<Forward> = fc.record({
    id: fc.constant(testId("forward", "any")),
    name: fc.constantFrom("Kiln page", "Door bell"),
    line: fc.constantFrom(...home.line.keys()),
    protocol: fc.constantFrom("tcp" as const, "udp" as const),
    ports: fc
      .tuple(fc.integer({ min: 1, max: 60_000 }), fc.nat(500))
      .map(([low, more]): [number, number] => [low, low + more]),
    host: fc.constantFrom(...[...home.host.values()].filter(({ ipv4 }) => ipv4 !== null).map(({ id }) => id)),
    toPort: fc.option(fc.integer({ min: 1, max: 65_535 })),
    hairpin: fc.boolean(),
    sources: fc.array(
      fc
        .constantFrom("203.0.113.40/32", "203.0.113.0/24", "2001:db8::/32")
        .map((text) => must(parsePrefix(text), text)),
      { maxLength: 3 },
    ),
    until: fc.option(fc.constantFrom("2027-04-30", "2030-01-01")),
  });
  test("what is written is read as it was meant, cell by cell", () => {
    fc.assert(
      fc.property(forward, (meant) => {
        let read: Partial<Forward> = {};
        for (const [column] of FORWARD_COLUMNS) {
          const text = forwardCellText(index, meant, column);
          const fields = readForwardCell(index, column, text, { protocol: "tcp" });
          expect(typeof fields).toBe("object");
          read = { ...read, ...(typeof fields === "string" ? {} : fields) };
        }
        expect({ ...read, id: meant.id }).toEqual(meant);
      }),
      { seed: 41, numRuns: 200 },
    );
  });

  test.each([
    ["name", "  ", /a name of 1 to 80 characters/],
    ["line", "Copper", /no line called "Copper"/],
    ["outside", "tcp 70000", /"tcp 70000" is no port outside/],
    ["outside", "8450-8440", /is no port outside/],
    ["to", "Nobody", /no device called "Nobody" in the register/],
    ["to", "192.0.2.77", /no device called "192\.0\.2\.77"/],
    ["port", "0", /"0" is no port/],
    ["port", "https", /"https" is no port/],
    ["from", "203.0.113.40/24", /no address or subnet/],
    [
      "from",
      Array.from({ length: 33 }, () => "203.0.113.0/24").join(","),
      /At most 32 belong here; these are 33/,
    ],
    ["until", "30 April", /not a date; write it as 2027-06-30/],
  ] as const)("%s %j is refused", (column, text, why) => {
    expect(readForwardCell(index, column, text, { protocol: "tcp" })).toMatch(why);
  });

  test("a new forward begins with whom it leads to; a pasted block names the row that it can't", () => {
    const host = must(
      [...home.host.values()].find(({ ipv4 }) => ipv4 !== null),
      "a host",
    );
    const paste = (rows: string[][], from: "name" | "to" | "outside", onto: string[] = []) =>
      afterEdit(home, (context) => pasteForwards(context, rows, from, onto));
    const made = forwardsOf(donePlan(paste([[host.name]], "to"))).find(({ id }) => !home.forward.has(id));
    expect(made).toMatchObject({ ...BLANK_FORWARD, name: `To ${host.name}`, host: host.id });
    expect(paste([["tcp 8443"]], "outside")).toMatch(/Begin a new forward with the device/);
    const rows = ["One", "Two"].map((name, at) => [
      name,
      "Mobile line",
      `udp ${500 + at}`,
      host.name,
      "",
      "",
      "",
      "yes",
    ]);
    expect(
      forwardsOf(donePlan(paste(rows, "name")))
        .filter(({ protocol }) => protocol === "udp")
        .map(({ name, ports, hairpin }) => [name, ports, hairpin])
        .sort(),
    ).toEqual([
      ["One", [500, 500], true],
      ["Two", [501, 501], true],
    ]);
    expect(paste([...rows, ["Three", "Copper"]], "name")).toBe('Row 3: There is no line called "Copper".');
    const lineless = donePlan(
      afterEdit(home, ({ edits }) => {
        for (const { id } of edits.all("forward")) edits.remove("forward", id);
        for (const leg of edits.all("interface")) if (leg.line !== null) edits.remove("interface", leg.id);
        for (const line of edits.all("line")) edits.remove("line", line.id);
      }),
    );
    expect(afterEdit(lineless, (context) => pasteForwards(context, [[host.name]], "to", []))).toMatch(
      /no internet line/,
    );
  });
});

describe("a device's routes", () => {
  const routesOf = (plan: Plan) =>
    must(plan.device.get(device), "it").routes.map(
      (route) => `${routeCellText(route, "prefix")} ${routeCellText(route, "via")}`,
    );
  const paste = (plan: Plan, rows: string[][], from: RouteColumn, onto: number[] = []) =>
    afterEdit(plan, (context) => pasteRoutes(context, { device, rows, from, onto }));
  const rows = [
    ["10.9.0.0 255.255.0.0", "172.19.20.7"],
    ["default6", "fe80::1"],
  ];
  const two = donePlan(paste(home, rows, "prefix"));

  test("they are pasted, written onto by their places, and taken away", () => {
    expect(routesOf(two)).toEqual(["10.9.0.0/16 172.19.20.7", "::/0 fe80::1"]);
    expect(routesOf(donePlan(paste(two, [["172.19.30.9"]], "via", [0])))[0]).toBe("10.9.0.0/16 172.19.30.9");
    expect(routesOf(donePlan(afterEdit(two, (context) => removeRoutes(context, device, [0]))))).toEqual([
      "::/0 fe80::1",
    ]);
    const spare = donePlan(paste(two, [["10.9.0.0/16", "172.19.20.8", "20"]], "prefix"));
    expect(
      must(spare.device.get(device), "it").routes.map((route) => routeCellText(route, "metric")),
    ).toEqual(["1", "1", "20"]);
    const begun = donePlan(paste(home, [["10.9.0.0/16"]], "prefix"));
    expect(routesOf(begun)).toEqual(["10.9.0.0/16 10.9.0.0"]);
  });

  test.each([
    [[["10.9.0.1/16"]], "prefix", [], /"10\.9\.0\.1\/16" is no subnet/],
    [[["10.9.0.0/16", "nowhere"]], "prefix", [], /"nowhere" is no address of a next hop/],
    [[["10.9.0.0/16", "fe80::1"]], "prefix", [], /of one family/],
    [[["172.19.20.7"]], "via", [], /Begin a new route with the subnet/],
    [[["10.9.0.0/16", "172.19.20.7"]], "prefix", [], /a route for 10\.9\.0\.0\/16 by 172\.19\.20\.7 already/],
    [[["10.9.0.0/16", "172.19.20.8", "fast"]], "prefix", [], /"fast" is no metric/],
    [[["65536"]], "metric", [0], /"65536" is no metric/],
    [[["10.7.0.0/16"], ["x"]], "prefix", [], /^Row 2: "x" is no subnet/],
  ] as const)("%j is refused and changes nothing", (rows, from, onto, why) => {
    expect(
      paste(
        two,
        rows.map((row) => [...row]),
        from,
        [...onto],
      ),
    ).toMatch(why);
  });

  test("there are at most 256, and none on a device that is gone", () => {
    const rows = Array.from({ length: 257 }, (_, at) => [
      `10.${at % 256}.${Math.floor(at / 256)}.0/24`,
      "172.19.20.7",
    ]);
    expect(paste(home, rows, "prefix")).toBe("A device has at most 256 routes.");
    const gone = testId("device", "gone");
    const edit = { device: gone, rows: [["10.9.0.0/16", "10.9.0.1"]], from: "prefix" as const, onto: [] };
    expect(afterEdit(home, (context) => pasteRoutes(context, edit))).toBe("That device is gone.");
    expect(afterEdit(home, (context) => removeRoutes(context, gone, [0]))).toBe("That device is gone.");
  });
});
