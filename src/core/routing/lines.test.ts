import { asPrefix4, parseAddress, parseIpv4, parsePrefix, type Address } from "../address";
import { must } from "../kernel";
import { BLANK_LINE, PlanIndex, type Line, type Service } from "../plan";
import { aDevice, aHost, anInterface, aSegment, aZone, planWith, testId } from "../testing/build-plan";
import { allLinesOf, lineFor, noticesLoss, OUTSIDE, routeFrom, sharingLines } from ".";

const at = (text: string): Address => must(parseAddress(text), `the address ${text}`);
const v4 = (text: string) => must(parseIpv4(text), `the address ${text}`);

const STAFF = aSegment({
  name: "Staff",
  prefixes4: [must(asPrefix4(parsePrefix("10.24.20.0/24")), "a subnet")],
});
const ROUTER = aDevice({ name: "Router", kind: "gateway" });
const DSL: Line = { ...BLANK_LINE, id: testId("line", "dsl"), name: "Copper" };
const RADIO: Line = { ...BLANK_LINE, id: testId("line", "radio"), name: "Mobile", place: 1 };

const watching = (...targets: string[]): Line["watch"] => ({
  ...BLANK_LINE.watch,
  by: "target",
  targets: targets.map(at),
});

describe("which line carries what", () => {
  const VOIP: Service = { name: "sip", protocol: "udp", ports: [[5060, 5061]] };
  const BOX = aHost({ name: "Box", segment: STAFF.id, ipv4: v4("10.24.20.9") });
  const two = (first: Partial<Line>, second: Partial<Line>) => {
    const lines: Line[] = [
      { ...DSL, ...first },
      { ...RADIO, ...second },
    ];
    return PlanIndex.of(
      planWith({
        zone: [aZone()],
        line: lines,
        segment: [STAFF],
        device: [ROUTER],
        interface: [
          anInterface({
            name: "staff",
            device: ROUTER.id,
            segment: STAFF.id,
            addresses4: [v4("10.24.20.1")],
          }),
          ...lines.map((line) =>
            anInterface({
              id: testId("interface", line.name),
              name: line.name,
              device: ROUTER.id,
              line: line.id,
            }),
          ),
        ],
        host: [BOX],
      }),
    );
  };
  const out = (
    index: PlanIndex,
    src: string,
    service: { protocol: Service["protocol"]; port: number | null } | null = null,
    down: readonly string[] = [],
  ): string | null =>
    lineFor(
      index,
      allLinesOf(index, ROUTER.id),
      { src: at(src), service },
      ({ line }) => !down.includes(line.name),
    )?.line.name ?? null;

  test("the first that works carries everything; without one nothing does", () => {
    const index = two({}, {});
    expect(out(index, "10.24.20.5")).toBe("Copper");
    expect(out(index, "10.24.20.5", null, ["Copper"])).toBe("Mobile");
    expect(out(index, "10.24.20.5", null, ["Copper", "Mobile"])).toBeNull();
  });

  test("with shares the greatest stands for all; one behind a first line without changes nothing", () => {
    expect(out(two({ share: 30 }, { share: 70 }), "10.24.20.5")).toBe("Mobile");
    expect(out(two({ share: 30 }, { share: 70 }), "10.24.20.5", null, ["Mobile"])).toBe("Copper");
    expect(out(two({ share: 0 }, { share: 70 }), "10.24.20.5")).toBe("Copper");
    expect(out(two({ share: 60 }, { share: 0 }), "10.24.20.5")).toBe("Copper");
    const all = allLinesOf(two({ share: 30 }, { share: 70 }), ROUTER.id);
    expect(sharingLines(all).map(({ line }) => line.share)).toEqual([70, 30]);
    expect(sharingLines([])).toEqual([]);
  });

  test("the narrowest pin holds: a host's before a service's before its segment's", () => {
    const index = two(
      { pins: [{ what: "service", service: VOIP, orElse: "next" }] },
      {
        pins: [
          { what: "segment", segment: STAFF.id, orElse: "stays" },
          { what: "host", host: BOX.id, orElse: "next" },
        ],
      },
    );
    expect(out(index, "10.24.20.5")).toBe("Mobile");
    expect(out(index, "10.24.20.5", { protocol: "udp", port: 5061 })).toBe("Copper");
    expect(out(index, "10.24.20.5", { protocol: "udp", port: 5062 })).toBe("Mobile");
    expect(out(index, "10.24.20.5", { protocol: "tcp", port: 5061 })).toBe("Mobile");
    expect(out(index, "10.24.20.9", { protocol: "udp", port: 5061 })).toBe("Mobile");
    expect(out(index, "10.24.99.5")).toBe("Copper");
  });

  test("what is pinned to a line that is down goes by the next, or stays", () => {
    const pinned = (orElse: "next" | "stays") =>
      out(two({}, { pins: [{ what: "segment", segment: STAFF.id, orElse }] }), "10.24.20.5", null, [
        "Mobile",
      ]);
    expect([pinned("next"), pinned("stays")]).toEqual(["Copper", null]);
  });

  test("the route itself asks whose traffic it is", () => {
    const index = two({}, { pins: [{ what: "segment", segment: STAFF.id, orElse: "next" }] });
    const by = (asks: Parameters<typeof routeFrom>[3]) =>
      routeFrom(index, ROUTER, OUTSIDE[4], asks)?.line?.name;
    expect([by(null), by({ src: at("10.24.20.5"), service: null })]).toEqual(["Copper", "Mobile"]);
  });

  test.each<[string, Partial<Line>, boolean]>([
    ["the cable goes dark with the line", { providerBox: "none" }, true],
    ["a box between keeps the cable up", { providerBox: "bridges" }, false],
    ["a target is asked behind it", { providerBox: "bridges", watch: watching("198.51.100.53") }, true],
    ["targets without one ask nobody", { watch: watching() }, false],
  ])("whether a loss is noticed: %s", (_, fields, noticed) => {
    expect(noticesLoss({ ...DSL, ...fields })).toBe(noticed);
  });
});
