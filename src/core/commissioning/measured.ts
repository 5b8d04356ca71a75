import { reachOf } from "../cabling";
import { nameOf, pointsOf, type Link, type PlanIndex } from "../plan";
import type { Fact } from "./fact";
import type { Expected, SiteTest } from "./tests";

// What only an instrument shows: how strong a name is where its access point stands, whether a cable is sound.

/** In dBm, what speech and pictures need over the air; weaker names are slow, and are left and joined again. */
const LEAST_LEVEL = -67;

const levelFact = (device: string): string => `level ${device}`;
const cableFact = (link: string): string => `cable ${link}`;

interface Measured {
  readonly fact: Fact;
  readonly test: SiteTest;
}

type Bounds = Extract<Expected, { readonly is: "measured" }>;

const measured = (fact: Fact, test: Pick<SiteTest, "place" | "at" | "does">, expected: Bounds): Measured => ({
  fact,
  test: { ...test, id: fact.id, question: null, pulled: null, expected, proves: [fact.id] },
});

/** At each access point the level of its first name, where those who use it are. */
function levels(index: PlanIndex): Measured[] {
  const ssids = [...index.plan.ssid.values()];
  return [...index.plan.device.values()].flatMap((device): Measured[] => {
    const own = ssids.find((ssid) => pointsOf(index, ssid).some(({ id }) => id === device.id));
    if (own === undefined) return [];
    return [
      measured(
        { id: levelFact(device.id), kind: "level", words: `How strong ${device.name} is`, shownOn: null },
        {
          place: device.place,
          at: device.name,
          does: `Read on a laptop how strong ${own.name} of ${device.name} is at the farthest seat.`,
        },
        { is: "measured", what: "Level", unit: "dBm", least: LEAST_LEVEL, most: null },
      ),
    ];
  });
}

/** As many metres as copper may have at the speed of its ports; null for fibre, and where none are known. */
function copperMetres(index: PlanIndex, link: Link): number | null {
  const [a, b] = [index.plan.port.get(link.a), index.plan.port.get(link.b)];
  if (link.medium !== "copper" || a === undefined || b === undefined) return null;
  const metres = reachOf(link, a, b);
  return metres === null || metres === 0 ? null : metres;
}

const cables = (index: PlanIndex): Measured[] =>
  [...index.plan.link.values()].flatMap((link): Measured[] => {
    const metres = copperMetres(index, link);
    if (metres === null) return [];
    const device = index.plan.device.get(index.plan.port.get(link.a)?.device ?? "");
    const name = nameOf(index, "link", link.id);
    return [
      measured(
        { id: cableFact(link.id), kind: "cable", words: `${name}, tested`, shownOn: null },
        {
          place: device?.place ?? "",
          at: nameOf(index, "port", link.a),
          does: `Test ${name} with a cable tester: all eight wires through and in order, and its length.`,
        },
        { is: "measured", what: "Length", unit: "m", least: null, most: metres },
      ),
    ];
  });

/** What instruments have to show, each with the fact that it proves. */
export const measuredTests = (index: PlanIndex): Measured[] => [...levels(index), ...cables(index)];
