import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { PlanIndex, type Segment, type Service } from "../plan";
import { openDoor, setWall } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { decide } from "./decide";
import { WALL_RULES } from "./wall-rules";
import { INTERNET, networkOfSegment } from "./networks";
import { judge } from "./filter";
import type { Packet } from "./packet";

const office = fennelStreet();
const GATEWAY = must(
  [...office.device.values()].find(({ kind }) => kind === "gateway"),
  "the gateway",
).id;
const segments = [...office.segment.values()];
const ends = [...segments.map((segment) => segment.zone), "internet"];

const anyService: fc.Arbitrary<Service> = fc.record({
  name: fc.constant("x"),
  protocol: fc.constantFrom("tcp" as const, "udp" as const),
  ports: fc
    .tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 20 }))
    .map(([low, more]): [number, number][] => [[low, low + more]]),
});
const end = (key: string) =>
  key === "internet" ? { at: "internet" as const } : { at: "zone" as const, zone: key };

test("the ordered list that walls come to decides every packet as the walls do", () => {
  let passed = 0;
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          from: fc.constantFrom(...ends),
          to: fc.constantFrom(...ends),
          door: fc.constantFrom("open" as const, "services" as const, "closed" as const),
          services: fc.array(anyService, { minLength: 1, maxLength: 2 }),
        }),
        { maxLength: 12 },
      ),
      fc.array(
        fc.record({
          from: fc.constantFrom(...segments),
          to: fc.constantFrom(...segments),
          outside: fc.boolean(),
          protocol: fc.constantFrom("tcp" as const, "udp" as const),
          port: fc.integer({ min: 1, max: 80 }),
        }),
        { minLength: 5, maxLength: 20 },
      ),
      (walls, packets) => {
        const plan = donePlan(
          afterEdit(office, ({ edits, ids }) => {
            for (const wall of edits.all("wall")) edits.remove("wall", wall.id);
            for (const { from, to, door, services } of walls)
              if (from !== to) {
                if (door === "services")
                  for (const service of services)
                    openDoor(edits, ids, {
                      from: end(from),
                      to: end(to),
                      service: {
                        ...service,
                        name: `x${service.ports[0]?.[0] ?? 0}`,
                      },
                    });
                else setWall(edits, ids, { from: end(from), to: end(to), door, services: [], reason: "" });
              }
          }),
        );
        const index = PlanIndex.of(plan);
        const rules = must(index.derived(WALL_RULES).get(GATEWAY), "its rules");
        for (const { from, to, outside, protocol, port } of packets) {
          if (!outside && from.id === to.id) continue;
          const packet: Packet = {
            family: 4,
            protocol,
            src: 1 as Packet["src"],
            dst: 2 as Packet["dst"],
            sport: 50_000,
            dport: port,
          };
          const goal: Segment | "internet" = outside ? "internet" : to;
          const judged =
            judge(rules, {
              from: networkOfSegment(from),
              to: goal === "internet" ? INTERNET : networkOfSegment(goal),
              packet,
            }).action === "accept";
          passed += Number(judged);
          expect(judged).toBe(
            decide(index, from, goal, { name: "x", protocol, ports: [[port, port]] }).passes,
          );
        }
      },
    ),
    { seed: 88, numRuns: 80 },
  );
  expect(passed).toBeGreaterThan(40);
});

test("what a gateway has to answer needs no door: addresses, names it serves, an echo; its pages do", () => {
  const index = PlanIndex.of(office);
  const rules = must(index.derived(WALL_RULES).get(GATEWAY), "its rules");
  const from = networkOfSegment(
    must(
      segments.find((segment) => segment.name === "Cards"),
      "Cards",
    ),
  );
  const to = (protocol: Packet["protocol"], dport: number | null) =>
    judge(rules, {
      from,
      to: "router",
      packet: {
        family: 4,
        protocol,
        src: 1 as Packet["src"],
        dst: 2 as Packet["dst"],
        sport: null,
        dport,
      },
    }).action;
  expect([to("udp", 67), to("udp", 53), to("icmp", null), to("tcp", 443), to("tcp", 22)]).toEqual([
    "accept",
    "accept",
    "accept",
    "drop",
    "drop",
  ]);
});
