import { fennelStreet } from "../../../../demo/fennel-street";
import { formatAddress } from "../../address";
import { must } from "../../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../../plan";
import { chooseGateway, legFieldText, writeLegField, type LegField } from "..";
import type { EditContext, Refusal } from "../planner";

let made = 0;
const ids = () => {
  made += 1;
  return `019d0000-0000-7000-8000-${String(made).padStart(12, "0")}`;
};
function after(plan: Plan, edit: (context: EditContext) => Refusal): Plan | string {
  const edits = new PlanEdits(plan);
  const refusal = edit({ edits, index: PlanIndex.of(plan), ids });
  const applied = applyChanges(plan, edits.changes());
  return refusal ?? must(applied.ok ? applied.value : null, "it applies");
}
const OFFICE = fennelStreet();
const named = (kind: "device" | "segment", name: string): string =>
  must([...OFFICE[kind].values()].find((named) => named.name === name)?.id, name);
const LEG = must(
  PlanIndex.of(OFFICE)
    .interfacesOf(named("device", "Gateway"))
    .find(({ segment }) => segment === named("segment", "Staff")),
  "the gateway's leg",
).id;

test.each<[LegField, string, string]>([
  ["more4", ".4, 10.24.20.5", "10.24.20.4, 10.24.20.5"],
  ["addresses6", "2001:db8:24:20::1/64 fd00:24::1", "2001:db8:24:20::1, fd00:24::1"],
  ["mac", "02-5A-10-3C-00-22", "02:5a:10:3c:00:22"],
  ["relayTo", "10.24.70.5", "10.24.70.5"],
  ["mac", "", ""],
  ["relayTo", "", ""],
])("%s of a leg, written %p, reads %p", (field, text, says) => {
  const plan = after(OFFICE, (context) => writeLegField(context, LEG, field, text));
  const leg = typeof plan === "string" ? undefined : plan.interface.get(LEG);
  expect(leg === undefined ? plan : legFieldText(leg, field)).toBe(says);
  // The first address stays what it was.
  expect(leg?.addresses4[0]).toBe(OFFICE.interface.get(LEG)?.addresses4[0]);
});

test.each<[LegField, string, RegExp]>([
  ["more4", "next door", /^"next" is not an IPv4 address/],
  ["addresses6", "10.24.20.9", /^"10\.24\.20\.9" is not an IPv6 address/],
  [
    "addresses6",
    Array.from({ length: 17 }, (_, n) => `fd00::${n + 1}`).join(" "),
    /at most 16 addresses; these are 17/,
  ],
  ["mac", "02:5a", /^"02:5a" is not a MAC address/],
  ["relayTo", "the server", /^"the server" is not the IPv4 address of a DHCP server/],
])("%s of a leg, written %p, is a sentence", (field, text, says) => {
  expect(after(OFFICE, (context) => writeLegField(context, LEG, field, text))).toMatch(says);
});

describe("the gateway of a segment is a choice", () => {
  const guests = named("segment", "Guests");
  const choose = (device: string | null) =>
    after(OFFICE, (context) => chooseGateway(context, guests, device));

  test("a device with a leg there uses it, and no second address is made", () => {
    const plan = choose(named("device", "Gateway"));
    expect(typeof plan === "string" ? plan : plan.interface.size).toBe(OFFICE.interface.size);
  });

  test("a device without one gets a leg with a free address, and nobody else's", () => {
    const plan = choose(named("device", "Upper switch"));
    const index = PlanIndex.of(must(typeof plan === "string" ? null : plan, String(plan)));
    const leg = must(index.gatewayOf(must(index.plan.segment.get(guests), "Guests")), "a gateway");
    expect(leg.device).toBe(named("device", "Upper switch"));
    const [address] = leg.addresses4;
    const others = [...OFFICE.interface.values()].flatMap(({ addresses4 }) => addresses4);
    expect([others.includes(must(address, "an address")), formatAddress(must(address, ""))]).toEqual([
      false,
      expect.stringMatching(/^10\.24\.90\./),
    ]);
  });

  test("none is a choice, too", () => {
    const plan = choose(null);
    expect(typeof plan === "string" ? plan : plan.segment.get(guests)?.gatewayInterface).toBeNull();
  });
});
