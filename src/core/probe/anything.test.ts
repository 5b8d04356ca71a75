import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { PlanIndex, type PlanEdits, type Plan, type ProbeQuestion, type Service } from "../plan";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { parseAddress } from "../address";
import { asClient, probe, type Outcome } from "./probe";

let made = 0;
const ids = () => testId("probe", `${(made += 1)}`);
const ask = (plan: Plan, question: ProbeQuestion): Outcome => probe(PlanIndex.of(plan), question, ids);
const named = <T extends { readonly name: string }>(all: ReadonlyMap<string, T>, name: string): T =>
  must(
    [...all.values()].find((named) => named.name === name),
    name,
  );
const office = fennelStreet();
const pc = named(office.host, "PC Consult 1");
const edited = (plan: Plan, edit: (edits: PlanEdits) => void) =>
  donePlan(afterEdit(plan, ({ edits }) => edit(edits)));

describe("by anything", () => {
  const staff = must(office.segment.get(pc.segment ?? ""), "its segment");
  const out = (services: Service[]) =>
    edited(office, (edits) => {
      for (const wall of edits.all("wall"))
        if (wall.from.at === "zone" && wall.from.zone === staff.zone && wall.to.at === "internet")
          edits.patch("wall", wall.id, { door: services.length > 0 ? "services" : "closed", services });
    });
  const dns: Service = { name: "dns", protocol: "udp", ports: [[53, 53]] };
  const echo: Service = { name: "echo", protocol: "icmp", ports: [] };
  const web: Service = { name: "https", protocol: "tcp", ports: [[443, 443]] };
  const internet = asClient({ at: "host", host: pc.id }, { to: "internet", service: null });

  test.each<[string, Service[], boolean]>([
    ["names and echoes alone", [dns, echo], false],
    ["nothing", [], false],
    ["pages last in the list", [dns, web], true],
    ["pages", [web], true],
  ])("a wall that lets out %s", (_, services, passes) => {
    const { cause } = ask(out(services), internet);
    expect(cause === null).toBe(passes);
  });
  test("a door for something of its own counts as something", () => {
    expect(
      ask(out([dns, { name: "mail", protocol: "tcp", ports: [[993, 993]] }]), internet).cause,
    ).toBeNull();
  });
});

describe("from outside", () => {
  const house = lockkeepersHouse();
  const line = named(house.line, "Fibre line");
  const host = must(
    [...house.host.values()].find((host) => host.manner !== "dynamic" && host.ipv4 !== null),
    "a host with an address",
  );
  const forwarded = donePlan(
    afterEdit(house, ({ edits, ids: next }) => {
      edits.put("forward", {
        id: next(),
        name: "Pages",
        line: line.id,
        protocol: "tcp",
        ports: [8443, 8443],
        host: host.id,
        toPort: 443,
        hairpin: false,
        sources: [],
        until: null,
      });
    }),
  );
  const pages = named(forwarded.forward, "Pages");

  test("a line that gets its address by a login has one that can be asked, noted or not", () => {
    expect([
      line.addressing,
      [...house.interface.values()].filter((leg) => leg.line === line.id).flatMap((leg) => leg.addresses4),
    ]).toEqual(["login", expect.anything()]);
    const bare = edited(forwarded, (edits) => {
      for (const leg of edits.all("interface"))
        if (leg.line === line.id) edits.patch("interface", leg.id, { addresses4: [] });
    });
    for (const plan of [forwarded, bare]) {
      expect(
        ask(plan, { ...asClient({ at: "internet", line: line.id }, { to: "forward", forward: pages.id }) }),
      ).toMatchObject({ cause: null, delivered: true });
    }
    const fixed = edited(bare, (edits) => edits.patch("line", line.id, { addressing: "fixed" }));
    expect(
      ask(fixed, asClient({ at: "internet", line: line.id }, { to: "forward", forward: pages.id })).cause
        ?.sentence,
    ).toMatch(/has no outside IPv4 address in the plan/);
  });

  test("by IPv6 the cause and the repair are those of IPv6: an address, then a door, never a forward", () => {
    const question: ProbeQuestion = {
      from: { at: "internet", line: line.id },
      as: { as: "client" },
      mac: null,
      family: 6,
      goal: { to: "host", host: host.id, service: null },
    };
    expect(ask(house, question).cause).toMatchObject({
      sentence: expect.stringMatching(/has no IPv6 address in the plan/),
      repairs: [],
    });
    const segment = must(house.segment.get(host.segment ?? ""), "its segment");
    const six = edited(house, (edits) => {
      const [prefix] = segment.prefixes6;
      const base = prefix === undefined ? "fd24:5a10:3c01:99::" : null;
      edits.patch("host", host.id, {
        ipv6: must(
          parseAddress(base === null ? "fd24:5a10:3c01:99::10" : `${base}10`),
          "an address",
        ) as never,
      });
    });
    const outcome = ask(six, question);
    expect(
      outcome.cause?.repairs.map(({ label }) => label).filter((label) => /forward/i.test(label)),
    ).toEqual([]);
    expect(outcome.cause?.sentence).not.toMatch(/Nothing is forwarded/);
  });
});
