import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { flood, type Flood } from ".";
import { FABRIC } from "../fabric";
import { PlanIndex } from "../plan";

const heardBy = ({ heard }: Flood) => heard.map(({ host, tag }) => [host.name, tag]);
/** A frame by what does not hang on when somebody asked for its number. */
const frames = (one: Flood) => one.emissions.map(({ port, wire, tag, after }) => [port, wire, tag, after]);

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
