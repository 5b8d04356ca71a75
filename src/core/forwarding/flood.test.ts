import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { flood, type Flood } from ".";
import { FABRIC } from "../fabric";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex } from "../plan";

const heardBy = ({ heard }: Flood) => heard.map(({ host, tag }) => [host.name, tag]);
/** A frame by what does not hang on when somebody asked for its number. */
const frames = (flood: Flood) =>
  flood.emissions.map(({ port, wire, tag, after }) => [port, wire, tag, after]);

test.each([lockkeepersHouse, fennelStreet, bramblewick])(
  "frames at end devices are the same whether one asks for them singly, last first, or for all",
  (site) => {
    const index = PlanIndex.of(site());
    const { ports } = index.derived(FABRIC);
    let asked = 0;
    for (const { id, pvid } of ports) {
      if (pvid === null) continue;
      const source = { at: "port", port: id, tag: null, host: null } as const;
      const [whole, singly] = [flood(index, source), flood(index, source)];
      for (const { wire, tag } of [...whole.emissions].reverse()) {
        const number = singly.firstOn(wire, tag);
        expect(singly.emission(number)).toEqual(whole.emission(whole.firstOn(wire, tag)));
        expect(singly.firstOn(wire, tag)).toBe(number);
        asked += 1;
      }
      expect(frames(singly)).toEqual(frames(whole));
      expect(heardBy(singly)).toEqual(heardBy(whole));
      expect(singly.firstOn(-1, null)).toBe(-1);
    }
    expect(asked).toBeGreaterThan(30);
  },
);

/** All that a flood says, each frame by its number. */
const told = ({ arrivals, drops, routed, atLegs, emissions, heard }: Flood) => ({
  arrivals,
  drops,
  routed,
  atLegs,
  emissions,
  heard: heard.map(({ host, tag, emission }) => [host.id, tag, emission]),
});

/** The same site with each third port for end devices, and each trunk, kept apart from one another. */
function withIsolated(index: PlanIndex): PlanIndex {
  const edits = new PlanEdits(index.plan);
  for (const [at, { id, guards }] of [...index.plan.port.values()].entries())
    if (at % 3 === 0 || index.linkAt(id) !== undefined)
      edits.patch("port", id, { guards: { ...guards, isolated: true } });
  return must(afterEdits(index, edits), "a plan");
}

test.each([lockkeepersHouse, fennelStreet, bramblewick])(
  "what comes in at one port of a switch after another spreads as if each had been alone",
  (site) => {
    const open = PlanIndex.of(site());
    for (const index of [open, withIsolated(open)]) {
      const { wires, ports } = index.derived(FABRIC);
      let tried = 0;
      for (const { bridgePorts, hosts } of wires)
        for (const tag of [null, 1, 10, 20, 30]) {
          const port = ports[bridgePorts[0] ?? -1];
          if (port === undefined) continue;
          const source = { at: "port", port: port.id, tag, host: hosts[0] ?? null } as const;
          const lately = flood(index, source);
          // Its own port never sends it back, whatever was asked of floods from its neighbours before.
          const others = lately.emissions.filter((frame) => frame.after >= 0 && bridgePorts.length === 1);
          expect(others.map((frame) => frame.port)).not.toContain(bridgePorts[0]);
          expect(told(lately)).toEqual(told(flood(PlanIndex.of(index.plan), source)));
          tried += 1;
        }
      expect(tried).toBeGreaterThan(40);
    }
  },
);
