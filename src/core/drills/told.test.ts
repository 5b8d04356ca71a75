import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { dice, must } from "../kernel";
import { Study } from "../diagnosis";
import { PlanIndex, pointsOf } from "../plan";
import { asClient } from "../probe";
import { complaintText } from "./told";

test("a visitor's phone is written small within a sentence and large at its beginning; a name as it is", () => {
  const index = PlanIndex.of(lockkeepersHouse());
  const study = new Study(index);
  const ssid = must([...index.plan.ssid.values()][0], "a wireless name");
  const point = must(pointsOf(index, ssid)[0], "its access point").id;
  const host = must(
    [...index.plan.host.values()].find(({ name }) => name === "television"),
    "a device with a small name",
  ).id;
  const questions = [
    asClient({ at: "ssid", ssid: ssid.id, device: point }, { to: "address" }),
    asClient({ at: "host", host }, { to: "address" }),
  ];
  for (let seed = 1; seed < 40; seed += 1)
    for (const question of questions) {
      const planned = study.planned({ what: "try", question });
      const text = complaintText(index, question, { planned, seen: planned }, dice(seed * 7919));
      expect(text).toMatch(/^(A visitor|Something about (a visitor|television)|television)/);
    }
});
