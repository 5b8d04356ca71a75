import fc from "fast-check";
import type { OwnService, Service } from "../plan";
import { testId } from "../testing/build-plan";
import { catalogueOf, servicesCalled } from "./own-services";
import { SERVICES, servicesNamed } from "./services";

// What the names of a site's own services stand for, with all that they take in.

type Part = OwnService["parts"][number];
const own = (name: string, parts: readonly Part[], includes: readonly string[] = []): OwnService => ({
  id: testId("service", `${name} ${includes.join()}`),
  name,
  parts: [...parts],
  includes: [...includes],
  note: "",
});
const siteOf = (...services: readonly OwnService[]) => ({
  service: new Map(services.map((service) => [service.id, service])),
});
const tcp = (...ports: readonly [number, number][]): Part => ({ protocol: "tcp", ports: [...ports] });
const udp = (...ports: readonly [number, number][]): Part => ({ protocol: "udp", ports: [...ports] });

test("a name of the catalogue is the catalogue's, whatever a site calls so; an unknown one is nothing", () => {
  const site = siteOf(own("https", [tcp([9443, 9443])]));
  expect(servicesCalled(site, "https")).toEqual(servicesNamed("https"));
  expect(servicesCalled(site, "nothing")).toEqual([]);
  expect(catalogueOf(site)).toEqual(SERVICES);
});

test("a site without own services has the catalogue; own ones follow it by name", () => {
  expect(catalogueOf(siteOf())).toBe(SERVICES);
  const site = siteOf(own("scales", [tcp([4001, 4001])]), own("doorbell", [udp([7000, 7000])]));
  expect(catalogueOf(site).slice(0, SERVICES.length)).toEqual(SERVICES);
  expect(catalogueOf(site).slice(SERVICES.length)).toEqual([
    { name: "doorbell", protocol: "udp", ports: [[7000, 7000]] },
    { name: "scales", protocol: "tcp", ports: [[4001, 4001]] },
  ]);
});

test("takes in others, of the site and of the catalogue, one entry a protocol, in a circle each once", () => {
  const site = siteOf(
    own("till", [tcp([9100, 9100])], ["dns", "card", "till"]),
    own("card", [udp([3000, 3001])], ["till"]),
  );
  expect(servicesCalled(site, "till")).toEqual([
    {
      name: "till",
      protocol: "tcp",
      ports: [
        [53, 53],
        [9100, 9100],
      ],
    },
    {
      name: "till",
      protocol: "udp",
      ports: [
        [53, 53],
        [3000, 3001],
      ],
    },
  ]);
});

test("a part without ports is all of its protocol, whatever the others name", () => {
  const site = siteOf(own("any", [tcp([80, 80]), udp(), udp([53, 53])]));
  expect(servicesCalled(site, "any")).toEqual([
    { name: "any", protocol: "tcp", ports: [[80, 80]] },
    { name: "any", protocol: "udp", ports: [] },
  ]);
});

test("of two with one name the first by id counts, in whatever order they come", () => {
  const [a, b] = [own("scales", [tcp([1, 1])], []), own("scales", [tcp([2, 2])], ["none"])];
  const [first] = [a, b].sort((first, other) => (first.id < other.id ? -1 : 1));
  for (const site of [siteOf(a, b), siteOf(b, a)])
    expect(servicesCalled(site, "scales")).toEqual([{ name: "scales", ...first?.parts[0] }]);
});

test("ranges are in order and apart, hold the same ports, and come in services of sixteen", () => {
  const range = fc
    .tuple(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: 0, max: 6 }))
    .map(([low, more]): [number, number] => [low, low + more]);
  const few = fc.array(range, { minLength: 1, maxLength: 8 });
  const many = fc.array(range, { minLength: 40, maxLength: 80 });
  const split = { met: false };
  fc.assert(
    fc.property(fc.oneof(few, many), (ranges) => {
      const made: readonly Service[] = servicesCalled(siteOf(own("it", [tcp(...ranges)])), "it");
      const all = made.flatMap(({ ports }) => ports);
      const numbers = (of: readonly (readonly [number, number])[]) =>
        new Set(of.flatMap(([low, high]) => Array.from({ length: high - low + 1 }, (_, at) => low + at)));
      expect([...numbers(all)].sort()).toEqual([...numbers(ranges)].sort());
      for (const [at, [low]] of all.entries())
        if (at > 0) expect(low).toBeGreaterThan((all[at - 1]?.[1] ?? 0) + 1);
      expect(made.slice(0, -1).every(({ ports }) => ports.length === 16)).toBe(true);
      expect(made.at(-1)?.ports.length).toBeGreaterThan(0);
      expect(made.at(-1)?.ports.length).toBeLessThanOrEqual(16);
      split.met ||= made.length > 1;
    }),
  );
  expect(split.met).toBe(true);
});
