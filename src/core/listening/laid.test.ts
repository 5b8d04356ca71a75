import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { PlanIndex, type Host, type Plan } from "../plan";
import { heardAt } from "../testing/hear";
import { laidBeside } from "./laid";

const INLINE = { position: "inline", mac: null } as const;

const portOf = ({ attachment }: Host): string | null => (attachment.at === "port" ? attachment.port : null);
const asking = (plan: Plan): Host[] =>
  [...plan.host.values()].filter((host) => host.manner !== "typed" && portOf(host) !== null).slice(0, 12);

describe.each([lockkeepersHouse, fennelStreet, bramblewick])("%p", (made) => {
  const plan = made();
  const index = PlanIndex.of(plan);

  test("what is said by the plan is as planned where it is heard", () => {
    const hosts = asking(plan);
    const trunks = [...plan.link.values()].flatMap(({ a, b }) => [a, b]).slice(0, 12);
    let right = 0;
    for (const port of [...hosts.flatMap((host) => portOf(host) ?? []), ...trunks]) {
      const { lines } = laidBeside(index, port, INLINE, heardAt(index, port, hosts));
      expect(lines.filter(({ verdict }) => verdict === "otherwise")).toEqual([]);
      right += lines.filter(({ verdict }) => verdict === "right").length;
    }
    expect(right).toBeGreaterThan(20);
  });
});
