import fc from "fast-check";
import { ipv4, prefixOf, type Address } from "../address";
import { must } from "../kernel";
import { blocksOf } from "./blocks";
import { allowedBetween } from "./allowed";
import { everyService } from "./service-space";
import { listSpace } from "./space";
import { closedList } from "./compile";
import type { ListRule, Universe } from "./universe";

const address = (third: number, last: number): Address => must(ipv4(0x0a000000 + third * 256 + last), "it");
const NAMES = ["a", "b", "c", "d", "e", "f"];
const universe: Universe = {
  stations: new Map(NAMES.map((name, at) => [name, [{ first: address(at, 1), last: address(at, 9) }]])),
  router: [address(0, 10)],
  // The first two lie behind one leg.
  legs: new Map(NAMES.map((name, at) => [name, at < 2 ? "leg 0" : `leg ${at}`])),
  services: { 4: everyService(4), 6: [] },
};
const legOf = (name: string) => universe.legs?.get(name) ?? name;

const ends = fc
  .subarray([...NAMES, "any"], { minLength: 1, maxLength: 3 })
  .chain((networks) =>
    fc
      .option(fc.integer({ min: 0, max: 5 }), { freq: 2 })
      .map((host) => [
        ...networks.map((network) => ({ network, prefixes: null })),
        ...(host === null
          ? []
          : [{ network: "any", prefixes: [must(prefixOf(address(host, 3), 32), "it")] }]),
      ]),
  );
const rules = fc.array(
  fc
    .record({ from: ends, to: ends })
    .map((rule): ListRule => ({ ...rule, services: everyService(4), action: "accept" })),
  { maxLength: 5 },
);

const pairsOf = (all: ReturnType<typeof blocksOf>) =>
  all
    .filter(({ family }) => family === 4)
    .flatMap(({ from, to }) => from.flatMap((source) => to.map((target) => `${source}>${target}`)))
    .sort();
const expected = NAMES.flatMap((from) =>
  [...NAMES, "router"].filter((to) => legOf(to) !== legOf(from)).map((to) => `${from}>${to}`),
).sort();

test("each two networks on different legs are in one block, and none on one leg are", () => {
  fc.assert(
    fc.property(rules, (list) => {
      expect(pairsOf(blocksOf(universe, list))).toEqual(expected);
      expect(pairsOf(blocksOf(universe, list, (name) => name))).toEqual(expected);
    }),
    { numRuns: 200 },
  );
});

test("networks that no rule tells apart are together, and those that are named apart are not", () => {
  const list: ListRule[] = [
    {
      from: [{ network: "c", prefixes: null }],
      to: [{ network: "any", prefixes: null }],
      services: everyService(4),
      action: "accept",
    },
  ];
  const fromC = blocksOf(universe, list).filter(({ from }) => from.includes("c"));
  expect(fromC.map(({ to }) => to.join(""))).toEqual(["abdef", "router"]);
  const apart = blocksOf(universe, list, (name) => (name < "d" ? "early" : "late"));
  expect(apart.filter(({ from }) => from.includes("c")).map(({ to }) => to.join(""))).toEqual([
    "ab",
    "def",
    "router",
  ]);
});

test("asked about some networks of a block, the packets told are theirs", () => {
  const host = must(prefixOf(address(2, 3), 32), "it");
  const list: ListRule[] = [
    {
      from: [{ network: "c", prefixes: [host] }],
      to: [{ network: "any", prefixes: null }],
      services: everyService(4),
      action: "accept",
    },
  ];
  const allowed = allowedBetween(
    listSpace(universe, closedList(list)),
    { name: "", networks: ["c"] },
    { name: "", networks: ["e"] },
  );
  expect(allowed?.state).toBe("mixed");
  expect(allowed?.witness?.accepted).toMatchObject({
    from: "c",
    to: "e",
    source: address(2, 3),
    target: address(4, 1),
  });
  expect(allowed?.witness?.denied).toMatchObject({
    from: "c",
    to: "e",
    source: address(2, 1),
    target: address(4, 1),
  });
});
