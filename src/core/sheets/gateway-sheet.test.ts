import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { parseIpv4 } from "../address";
import { must } from "../kernel";
import { USUAL_METRIC, PlanIndex, type Plan } from "../plan";
import { afterEdit, donePlan } from "../testing/after-edit";
import { glanceAt, progressOf } from "./at-a-glance";
import { gatewaySheet, routingDevices } from "./gateway-sheet";

const sheetOf = (plan: Plan) => {
  const index = PlanIndex.of(plan);
  return gatewaySheet(index, must(routingDevices(index)[0], "what routes"));
};

test("the home: a main line with a tag, one behind the provider's box, six legs with addresses", () => {
  const { device, lines, legs, does } = sheetOf(lockkeepersHouse());
  expect(device.name).toBe("Gateway");
  expect(lines.map(({ line, says, use, box }) => [line.name, ...says, use, box])).toEqual([
    [
      "Fibre line",
      "150 / 30 Mbit/s, login",
      "198.51.100.70, public",
      "first: carries everything, back after 60 s",
      null,
    ],
    [
      "Mobile line",
      "60 / 15 Mbit/s, DHCP",
      "carrier translates",
      "next: after 10 s without Fibre line",
      "routes too",
    ],
  ]);
  expect(legs.map(({ segment, addresses, serves }) => [segment.mark, addresses, serves])).toEqual(
    ["HH", "SD", "LD", "GD", "VS", "KT"].map((mark, at) => [mark, `172.19.${(at + 2) * 10}.1`, true]),
  );
  expect(does).toEqual(["translates", "filters", "serves DHCP"]);
});

test("a leg that relays says to whom; one without addresses to give says that; routes counted", () => {
  const home = lockkeepersHouse();
  const [first, second] = sheetOf(home).legs;
  const changed = donePlan(
    afterEdit(home, ({ edits }) => {
      for (const scope of edits.all("scope"))
        if ([first, second].some((leg) => leg?.segment.id === scope.segment)) edits.remove("scope", scope.id);
      const relayTo = must(parseIpv4("172.19.40.9"), "an address");
      edits.patch("interface", must(first, "a leg").leg.id, { relayTo });
      const { device } = must(first, "a leg").leg;
      const route = {
        prefix: { family: 4 as const, network: must(parseIpv4("10.9.0.0"), ""), length: 16 },
        via: relayTo,
        metric: USUAL_METRIC,
      };
      edits.patch("device", device, { routes: [route] });
    }),
  );
  const { legs, does } = sheetOf(changed);
  expect(legs.slice(0, 3).map(({ otherwise }) => otherwise)).toEqual([
    "relays DHCP to 172.19.40.9",
    "no DHCP by it",
    "",
  ]);
  expect(does).toContain("1 route");
});

test.each([fennelStreet(), lockkeepersHouse(), bramblewick()])(
  "$site.name: whatever stands at a line comes first, and the sheet's figures are those of its tables",
  (plan) => {
    const index = PlanIndex.of(plan);
    const devices = routingDevices(index);
    expect(gatewaySheet(index, must(devices[0], "it")).lines.length).toBeGreaterThan(0);
    const figure = (name: string) => glanceAt(index, "gateway").find((glance) => glance.name === name)?.value;
    expect([figure("Lines"), figure("Forwards"), figure("Routes")]).toEqual([
      String(plan.line.size),
      String(plan.forward.size),
      String([...plan.device.values()].flatMap(({ routes }) => routes).length),
    ]);
    expect(Number(figure("Legs"))).toBe(
      devices.reduce((sum, device) => sum + gatewaySheet(index, device).legs.length, 0),
    );
    expect(progressOf(plan, "gateway")).toBe("sound");
  },
);
