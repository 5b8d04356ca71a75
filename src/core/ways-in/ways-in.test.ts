import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { asPrefix6, parseIpv6, parsePrefix } from "../address";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Line, type Wish } from "../plan";
import { listFindings, runChecks, sentenceOf } from "../checks";
import { asClient, probe } from "../probe";
import { wayRepair, waysIn, WAYS, whenLineFails, type WayIn } from ".";

let made = 0;
const ids = () => {
  made += 1;
  return `019a0000-0000-7000-8000-${String(made).padStart(12, "0")}`;
};
const VIDEO = { name: "video", protocol: "tcp", ports: [[554, 554]] } as Wish["service"];
const WISH = "019b0000-0000-7000-8000-000000000001";

const changed = (index: PlanIndex, edit: (edits: PlanEdits) => void): PlanIndex => {
  const edits = new PlanEdits(index.plan);
  edit(edits);
  const applied = applyChanges(index.plan, edits.changes());
  return PlanIndex.of(
    must(applied.ok ? applied.value : null, applied.ok ? "" : JSON.stringify(applied.error)),
  );
};
const named = <T extends { readonly name: string }>(all: Iterable<T>, name: string): T =>
  must(
    [...all].find((named) => named.name === name),
    name,
  );
/** The home with a wish to reach the door bell's pictures. */
const home = (fields: Partial<Wish> = {}, to = "door-bell"): PlanIndex => {
  const index = PlanIndex.of(lockkeepersHouse());
  const host = [...index.plan.host.values()].find(
    ({ name }) => name.toLowerCase().replace(/\W+/g, "-") === to,
  );
  return changed(index, (edits) =>
    edits.put("wish", {
      id: WISH,
      name: "Door bell",
      host: must(host, to).id,
      service: VIDEO,
      from: [],
      way: "open",
      note: "",
      ...fields,
    }),
  );
};
const line = (index: PlanIndex, name: string): Line => named(index.plan.line.values(), name);
const setLine = (index: PlanIndex, name: string, fields: Partial<Line>) =>
  changed(index, (edits) => edits.patch("line", line(index, name).id, fields));
const wishOf = (index: PlanIndex): Wish => must(index.plan.wish.get(WISH), "the wish");
const said = (index: PlanIndex): Record<string, string> =>
  Object.fromEntries(
    waysIn(index, wishOf(index)).flatMap(({ way, byLine }) =>
      byLine.map((tried) => [`${way} ${tried.line.name}`, `${tried.verdict}: ${tried.says}`]),
    ),
  );

test("a camera at home: each way by each line, with the reason that a packet found", () => {
  const says = said(home());
  expect(says["forward Fibre line"]).toBe(
    "worksIf: you accept that anybody on the internet can try door-bell.",
  );
  expect(says["forward Mobile line"]).toMatch(
    /^cannot: Mobile line is behind the provider's carrier-grade NAT/,
  );
  expect(says["vpn Fibre line"]).toBe("works: ");
  expect(says["vpn Mobile line"]).toMatch(/^cannot: Mobile line is behind the provider's carrier-grade NAT/);
  expect(says["push Fibre line"]).toMatch(/^worksIf: the server that it speaks to by video is trusted/);
  expect(says["push Mobile line"]).toMatch(/^worksIf/);
  expect(says["ipv6 Fibre line"]).toMatch(/^cannot: .*has no (outside )?IPv6/);
});

test.each<[string, Partial<Line>, string, RegExp]>([
  [
    "the address moves and no name follows",
    { dynamicName: { name: "", updatedBy: "gateway", account: "" } },
    "vpn",
    /^worksIf: a name follows the line, whose address may move\.$/,
  ],
  [
    "the provider's box routes",
    { providerBox: "cannotBridge" },
    "forward",
    /^worksIf: the provider's box on Fibre line sends it on as well \(double NAT\); /,
  ],
  ["the carrier translates", { carrierNat: "yes" }, "vpn", /^cannot: Fibre line is behind/],
])("what the line does decides: %s", (_, fields, way, says) => {
  const index = setLine(home(), "Fibre line", fields);
  expect(said(index)[`${way} Fibre line`]).toMatch(says);
});

test("who asks from a known address is no stranger: the forward is limited to it", () => {
  const from = [must(parsePrefix("203.0.113.40/32"), "a prefix")];
  const index = home({ from });
  expect(said(index)["forward Fibre line"]).toBe("works: ");
  const after = setUp(index, "forward");
  const forward = must(
    [...after.plan.forward.values()].find(({ name }) => name === "Door bell"),
    "the forward",
  );
  expect([forward.ports, forward.toPort, forward.sources]).toEqual([[554, 554], null, from]);
  expect(wishOf(after).way).toBe("forward");
});

test("with IPv6 on line, segment and host the pinhole works, and opens nothing else", () => {
  const index = changed(home(), (edits) => {
    const gadgets = named(edits.all("segment"), "Gadgets");
    edits.patch("segment", gadgets.id, {
      prefixes6: [must(asPrefix6(parsePrefix("2001:db8:0:50::/64")), "a prefix")],
      advertise: "slaac",
    });
    edits.patch("interface", must(gadgets.gatewayInterface, "a gateway"), {
      addresses6: [must(parseIpv6("2001:db8:0:50::1"), "an address")],
    });
    const bell = edits.need("host", wishOf(home()).host);
    edits.patch("host", bell.id, { ipv6: must(parseIpv6("2001:db8:0:50::21"), "an address") });
    const fibre = named(edits.all("line"), "Fibre line");
    const leg = must(
      edits.all("interface").find((leg) => leg.line === fibre.id),
      "its leg",
    );
    edits.patch("interface", leg.id, { addresses6: [must(parseIpv6("2001:db8:1::2"), "an address")] });
  });
  expect(said(index)["ipv6 Fibre line"]).toBe(
    "worksIf: you accept that anybody on the internet can try door-bell.",
  );
});

const wayOf = (index: PlanIndex, way: WayIn["way"]): WayIn =>
  must(
    waysIn(index, wishOf(index)).find((wayIn) => wayIn.way === way),
    way,
  );
const setUp = (index: PlanIndex, way: WayIn["way"]): PlanIndex => {
  const repair = must(wayRepair(wishOf(index), wayOf(index, way)), "a way to set it up");
  return changed(index, (edits) => expect(repair.edit(edits, ids) ?? null).toBeNull());
};

test("what works by no line is not set up", () => {
  const index = home();
  expect(wayRepair(wishOf(index), wayOf(index, "ipv6"))).toBeNull();
});

test("the VPN is its own zone, a subnet kept clear, a door and a way to one host; packets go by it", () => {
  const index = home({}, "kiln-controller");
  const after = setUp(index, "vpn");
  const tunnel = must(
    [...after.plan.segment.values()].find((segment) => segment.tunnel !== null),
    "the tunnel",
  );
  expect(tunnel.tunnel).toEqual({ kind: "users", protocol: "udp", port: 51_900, line: null });
  const outcome = probe(
    after,
    asClient({ at: "tunnel", segment: tunnel.id }, { to: "host", host: wishOf(after).host, service: VIDEO }),
    ids,
  );
  expect(outcome.cause).toBeNull();
  expect(outcome.steps.map(({ title }) => title)).toContain("Somebody in By VPN");
  const laptop = must(
    [...after.plan.host.values()].find(({ name }) => name === "studio-laptop"),
    "the neighbour",
  );
  const neighbour = probe(
    after,
    asClient({ at: "tunnel", segment: tunnel.id }, { to: "host", host: laptop.id, service: VIDEO }),
    ids,
  );
  expect(neighbour.cause?.sentence).toMatch(/By VPN to Studio is closed/);
  const ssh = { name: "ssh", protocol: "tcp", ports: [[22, 22]] } as Wish["service"];
  const other = probe(
    after,
    asClient({ at: "tunnel", segment: tunnel.id }, { to: "host", host: wishOf(after).host, service: ssh }),
    ids,
  );
  expect(other.cause?.sentence).toMatch(/By VPN/);
  const had = new Set(listFindings(runChecks(index)).map(({ key }) => key));
  expect(
    listFindings(runChecks(after))
      .filter(({ key }) => !had.has(key))
      .map((finding) => sentenceOf(finding, after)),
  ).toEqual([]);
  // Set up again, nothing more is made.
  expect(setUp(after, "vpn").plan.segment.size).toBe(after.plan.segment.size);
});

test("without a wall at the gateway for it the tunnel does not come up, and the wall is said", () => {
  const after = setUp(home(), "vpn");
  const shut = changed(after, (edits) => {
    for (const wall of edits.all("wall"))
      if (wall.from.at === "internet" && wall.to.at === "gateway") edits.remove("wall", wall.id);
  });
  const tunnel = must(
    [...shut.plan.segment.values()].find((segment) => segment.tunnel !== null),
    "the tunnel",
  );
  const { cause, steps } = probe(
    shut,
    asClient({ at: "tunnel", segment: tunnel.id }, { to: "internet", service: null }),
    ids,
  );
  expect(cause).not.toBeNull();
  expect(steps.at(-1)?.title).toBe("Wall");
});

test("each way that is said to work is set up, and then the check of chosen ways is silent", () => {
  const index = home();
  for (const way of WAYS) {
    const { best } = wayOf(index, way);
    if (best === null || best.verdict === "cannot") continue;
    const after = setUp(index, way);
    expect(wayOf(after, way).best?.verdict).not.toBe("cannot");
    expect(listFindings(runChecks(after)).map(({ code }) => code)).not.toContain("wish-cannot");
  }
});

test("when the fibre fails: what works on the mobile line, each by a packet or a sum", () => {
  const index = setUp(home(), "vpn");
  const fails = whenLineFails(index, line(index, "Fibre line"));
  expect([fails.next?.name, fails.noticed]).toEqual(["Mobile line", true]);
  const things = Object.fromEntries(fails.things.map(({ what, works, says }) => [what, `${works}: ${says}`]));
  expect(things.Rates).toBe("false: 60 / 15 Mbit/s instead of 150 / 30 Mbit/s.");
  expect(things["From outside"]).toMatch(/^false: Nothing comes in by Mobile line/);
  expect(things["lock.example"]).toBe("false: The name goes on leading to Fibre line.");
  expect(things["Forward Kiln, for its maker"]).toMatch(/^false: .*carrier-grade NAT/);
  expect(things["Door bell"]).toMatch(/^false: .*carrier-grade NAT/);
  expect(whenLineFails(index, line(index, "Mobile line")).next?.name).toBe("Fibre line");
});

test("a forward on the second line works there; pins and what is locked to a box do not", () => {
  const index = changed(
    setLine(setLine(home(), "Mobile line", { carrierNat: "no", providerBox: "none" }), "Fibre line", {
      locked: "Phone service",
      pins: [{ what: "service", service: VIDEO, orElse: "stays" }],
    }),
    (edits) => {
      const kiln = named(edits.all("forward"), "Kiln, for its maker");
      edits.put("forward", {
        ...kiln,
        id: ids(),
        name: "Kiln by mobile",
        line: named(edits.all("line"), "Mobile line").id,
      });
    },
  );
  const things = Object.fromEntries(
    whenLineFails(index, line(index, "Fibre line")).things.map(({ what, says }) => [what, says]),
  );
  expect(things["Forward Kiln, for its maker"]).toBe(
    "kiln-controller is reached by Kiln by mobile on Mobile line.",
  );
  expect(things["Phone service"]).toBe("It only works at the provider's box of Fibre line.");
  expect(things.Pinned).toMatch(/: pinned to Fibre line, and goes out nowhere\.$/);
});
