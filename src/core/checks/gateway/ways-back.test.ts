import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { parsePrefix } from "../../address";
import { must } from "../../kernel";
import { PlanIndex, USUAL_ABILITIES, USUAL_METRIC, type Plan } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { repairsOf } from "..";
import { routesInCircle } from "./ways-back";

const TARGETS = ["10.8.0.0/16", "10.9.0.0/16"];

/** The house, whose gateway hands two subnets to a switch that hands them back. */
const roundHouse = (): Plan =>
  donePlan(
    afterEdit(lockkeepersHouse(), ({ edits, index }) => {
      const named = (name: string) =>
        must(
          edits.all("device").find((device) => device.name === name),
          name,
        );
      const hall = named("Hall switch");
      const via = must(index.interfacesOf(hall.id)[0]?.addresses4[0], "its address");
      edits.patch("device", hall.id, { abilities: { ...USUAL_ABILITIES, routes: true } });
      edits.patch("device", named("Gateway").id, {
        routes: TARGETS.map((text) => ({
          prefix: must(parsePrefix(text), text),
          via,
          metric: USUAL_METRIC,
        })),
      });
      return null;
    }),
  );

test("of two routes by one next hop the repair of a circle takes the one that goes round", () => {
  const plan = roundHouse();
  const index = PlanIndex.of(plan);
  const offered = routesInCircle.run(index).map((finding) => ({
    said: routesInCircle.describe(finding, index),
    labels: repairsOf(finding, index).map(({ label }) => label),
  }));
  expect(offered).toHaveLength(TARGETS.length);
  for (const { said, labels } of offered) {
    const target = TARGETS.find((text) => said.includes(text));
    expect(labels).toEqual([expect.stringContaining(`Remove the route for ${target} by`)]);
  }
});
