import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { must } from "../../kernel";
import { PlanIndex, type Plan } from "../../plan";
import { asClient, probe } from "../../probe";
import { pointRows } from "../../sheets";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { testId } from "../../testing/build-plan";
import { addDevice } from "./add-device";

const named = (plan: Plan, name: string) =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );

test("a router with wireless comes with radios, line and legs, and is an access point, too", () => {
  const plan = donePlan(
    afterEdit(lockkeepersHouse(), (context) =>
      addDevice(context, { model: "router-wireless-4", name: "All in one", place: "Flat" }),
    ),
  );
  const router = named(plan, "All in one");
  expect(router).toMatchObject({ kind: "gateway", filter: { list: "planned" } });
  const index = PlanIndex.of(plan);
  expect(
    [...plan.radio.values()]
      .filter(({ device }) => device === router.id)
      .map(({ band }) => band)
      .sort(),
  ).toEqual(["2.4", "5"]);
  expect(pointRows(index).map(({ device }) => device.name)).toContain("All in one");
});

test("who joins a name that only the router offers gets an address, and out", () => {
  const home = lockkeepersHouse();
  const station = must(
    [...home.host.values()].find(({ attachment }) => attachment.at === "ssid"),
    "somebody on the air",
  );
  const gateway = named(home, "Gateway");
  const only = (radios: boolean): Plan =>
    donePlan(
      afterEdit(home, ({ edits }) => {
        edits.patch("device", gateway.id, { abilities: { ...gateway.abilities, radios } });
        for (const { id } of edits.all("ssid")) edits.patch("ssid", id, { at: [gateway.id] });
        return null;
      }),
    );
  const outcome = (plan: Plan) =>
    probe(
      PlanIndex.of(plan),
      asClient({ at: "host", host: station.id }, { to: "internet", service: null }),
      () => testId("probe", "one"),
    ).cause?.sentence ?? null;
  expect(outcome(only(true))).toBeNull();
  expect(outcome(only(false))).not.toBeNull();
});
