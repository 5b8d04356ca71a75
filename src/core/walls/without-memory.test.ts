import { bramblewick } from "../../../demo/bramblewick";
import { ipv4 } from "../address";
import { must } from "../kernel";
import {
  BLANK_RULE,
  PlanIndex,
  USUAL_ABILITIES,
  type Device,
  type Plan,
  type Segment,
  type Service,
} from "../plan";
import { adoptPlanned, replaceRules, setWall } from "../planners";
import { asClient, probe } from "../probe";
import { listFindings, repairsOf, runChecks } from "../checks";
import { differenceAt, reachAt, reachMatrix } from "../reach";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { PLANNED_LISTS, STANDING_PROOFS, joinedProof, provePlanned } from ".";

// A switch that routes between the office and the vendor's bench and has a list of rules without memory.

const segmentOf = (plan: Plan, name: string): Segment =>
  must(
    [...plan.segment.values()].find((segment) => segment.name === name),
    name,
  );
const SWITCH = must(
  [...bramblewick().device.values()].find(({ name }) => name === "Office switch"),
  "the switch",
).id;
const HTTPS: Service = { name: "https", protocol: "tcp", ports: [[443, 443]] };
const at = (port: number): Service => ({ name: "x", protocol: "tcp", ports: [[port, port]] });

/** The works with that switch as the gateway of both segments, a host in each, and a door for pages. */
function routed(filter: Partial<Device["filter"]>, door: "services" | "open" = "services"): Plan {
  const works = bramblewick();
  return donePlan(
    afterEdit(works, ({ edits, ids }) => {
      const device = edits.need("device", SWITCH);
      edits.patch("device", SWITCH, {
        abilities: { ...USUAL_ABILITIES, routes: true },
        filter: { ...device.filter, ...filter },
      });
      for (const name of ["Office", "Vendor"]) {
        const segment = segmentOf(works, name);
        const known = must(works.interface.get(segment.gatewayInterface ?? ""), "a leg");
        const leg = {
          ...known,
          id: ids(),
          device: SWITCH,
          addresses4: [must(ipv4(must(known.addresses4[0], "an address") + 5), "an address")],
        };
        edits.put("interface", leg);
        edits.patch("segment", segment.id, { gatewayInterface: leg.id });
      }
      setWall(edits, ids, {
        from: { at: "zone", zone: segmentOf(works, "Office").zone },
        to: { at: "zone", zone: segmentOf(works, "Vendor").zone },
        door,
        services: door === "open" ? [] : [HTTPS],
        reason: "the vendor's bench",
      });
      return null;
    }),
  );
}

const reach = (plan: Plan, from: string, to: string) => {
  const matrix = reachMatrix(PlanIndex.of(plan));
  const place = (name: string) => matrix.rows.findIndex((row) => row.name === name);
  const [row, column] = [place(from), place(to)];
  return [reachAt(matrix, row, column), differenceAt(matrix, row, column)];
};
/** Whether a laptop plugged in where one segment is gets to a device of the other, and is answered. */
function passes(plan: Plan, [from, to]: readonly [string, string], service: Service): boolean {
  const index = PlanIndex.of(plan);
  const host = (name: string) =>
    must(
      index.hostsIn(segmentOf(plan, name).id).find(({ ipv4: own }) => own !== null) ??
        index.hostsIn(segmentOf(plan, name).id)[0],
      `a device in ${name}`,
    ).id;
  const question = asClient({ at: "host", host: host(from) }, { to: "host", host: host(to), service });
  return probe(index, question, () => testId("probe", "one")).cause === null;
}

test("without a list all passes; with the needed one the door is open, and answers let back", () => {
  const none = routed({ list: "none" });
  expect(reach(none, "Office", "Vendor")).toEqual(["past the walls", "more"]);
  expect(PlanIndex.of(none).derived(PLANNED_LISTS).has(SWITCH)).toBe(false);

  const planned = routed({ list: "planned", established: false });
  expect(reach(planned, "Office", "Vendor")).toEqual(["services", null]);
  // Packets to where answers go come in, but nothing comes of them.
  expect(reach(planned, "Vendor", "Office")).toEqual(["closed", null]);
  expect(passes(planned, ["Office", "Vendor"], HTTPS)).toBe(true);
  expect(passes(planned, ["Office", "Vendor"], at(22))).toBe(false);
  expect(passes(planned, ["Vendor", "Office"], HTTPS)).toBe(false);
  expect(passes(planned, ["Vendor", "Office"], at(8443))).toBe(false);
  const list = must(PlanIndex.of(planned).derived(PLANNED_LISTS).get(SWITCH), "its list");
  // The gateway answers for addresses and names: the switch need let nobody ask itself for them.
  const forItself = list.rules
    .filter(({ to }) => to.some(({ network }) => network === "router"))
    .flatMap(({ serves }) => serves.map(({ why }) => why));
  expect(forItself).toContain("an echo from inside is answered");
  expect(forItself.filter((why) => /DHCP|DNS/.test(why))).toEqual([]);
  expect(
    list.rules.some(({ serves }) => serves.some(({ why }) => why === "answers: the vendor's bench")),
  ).toBe(true);
});

test("where one side may start everything the other may, too: its questions pass for answers", () => {
  const open = routed({ list: "planned", established: false }, "open");
  expect(reach(open, "Vendor", "Office")).toEqual(["open", "more"]);
  expect(passes(open, ["Vendor", "Office"], at(22))).toBe(true);
  const remembers = routed({ list: "planned", established: true }, "open");
  expect(reach(remembers, "Vendor", "Office")).toEqual(["closed", null]);
  expect(passes(remembers, ["Vendor", "Office"], at(22))).toBe(false);
});

test("the same switch with memory needs no rules for answers, and the other side can't ask", () => {
  const planned = routed({ list: "planned", established: true });
  expect(reach(planned, "Vendor", "Office")).toEqual(["closed", null]);
  expect(passes(planned, ["Office", "Vendor"], HTTPS)).toBe(true);
  expect(passes(planned, ["Vendor", "Office"], at(8443))).toBe(false);
});

test("the needed list is proven at the switch, and noted as entered it does the same to every packet", () => {
  const planned = routed({ list: "planned", established: false });
  const index = PlanIndex.of(planned);
  const list = must(index.derived(PLANNED_LISTS).get(SWITCH), "its list");
  const proof = must(joinedProof(provePlanned(index, list)), "a proof");
  expect(proof.pairs.length).toBeGreaterThan(4);
  expect(proof.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
  const adopted = donePlan(
    afterEdit(planned, (context) => {
      const device = context.edits.need("device", SWITCH);
      context.edits.patch("device", SWITCH, { filter: { ...device.filter, list: "found" } });
      return adoptPlanned(context, SWITCH);
    }),
  );
  expect(adopted.device.get(SWITCH)?.filter.established).toBe(false);
  const standing = must(PlanIndex.of(adopted).derived(STANDING_PROOFS).get(SWITCH), "its proof");
  expect(standing.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
  expect(passes(adopted, ["Office", "Vendor"], HTTPS)).toBe(true);
});

test("a list that stands there and lets no answers back: the question arrives, and nothing comes of it", () => {
  const oneWay = donePlan(
    afterEdit(routed({ list: "found", established: false }), (context) =>
      replaceRules(context, {
        device: SWITCH,
        rules: [
          {
            ...BLANK_RULE,
            from: [{ at: "segment", segment: segmentOf(context.edits.plan, "Office").id }],
            services: [HTTPS],
          },
        ],
      }),
    ),
  );
  expect(reach(oneWay, "Office", "Vendor")).toEqual(["nothing", "less"]);
  expect(passes(oneWay, ["Office", "Vendor"], HTTPS)).toBe(false);
  const remembers = donePlan(
    afterEdit(oneWay, ({ edits }) => {
      const { filter } = edits.need("device", SWITCH);
      edits.patch("device", SWITCH, { filter: { ...filter, established: true } });
    }),
  );
  expect(passes(remembers, ["Office", "Vendor"], HTTPS)).toBe(true);
  expect(reach(remembers, "Office", "Vendor")).toEqual(["services", null]);
});

test("a gateway that filters nothing lets all past the walls: a stop, mended by filtering", () => {
  const works = bramblewick();
  const gateway = must(
    [...works.device.values()].find(({ kind }) => kind === "gateway" || kind === "firewall"),
    "the gateway",
  );
  const open = donePlan(
    afterEdit(works, ({ edits }) =>
      edits.patch("device", gateway.id, { filter: { ...gateway.filter, list: "none" } }),
    ),
  );
  expect(reach(open, "Vendor", "Office")).toEqual(["past the walls", "more"]);
  const index = PlanIndex.of(open);
  const found = listFindings(runChecks(index)).filter(({ code }) => code === "past-the-walls");
  expect(found.length).toBeGreaterThan(3);
  const [repair] = repairsOf(must(found[0], "a finding"), index);
  expect(repair?.label).toBe(`Let ${gateway.name} filter by what its walls need`);
  const mended = donePlan(
    afterEdit(open, ({ edits, ids }) => {
      must(repair, "a repair").edit(edits, ids);
      return null;
    }),
  );
  expect(mended.device.get(gateway.id)?.filter).toEqual(gateway.filter);
});
