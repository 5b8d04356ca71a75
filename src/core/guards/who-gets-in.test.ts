import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import {
  BLANK_SIGN_IN,
  PlanIndex,
  type Plan,
  type PlanEdits,
  type ProbeQuestion,
  type SignIn,
} from "../plan";
import { servicesNamed } from "../policy";
import { asClient, probe } from "../probe";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { mixedSite } from "../testing/mixed-site";
import { dice } from "../testing/plants";
import { v } from "../testing/written";
import { entryText, SITUATIONS, whoGetsIn, type Entry, type Situation } from "./who-gets-in";
import { patience, quicker, timeline, type TimeAsked } from "./timeline";
import { stagesOf } from "./way-there";

const profileIn = (edits: PlanEdits): SignIn => must(edits.all("signIn")[0], "a profile");
/** The practice with other settings of its profile, and more ports that ask by it. */
const practice = (fields: Partial<SignIn>, more: readonly string[] = []): Plan =>
  donePlan(
    afterEdit(fennelStreet(), ({ edits }) => {
      edits.patch("signIn", profileIn(edits).id, fields);
      const upper = must(
        edits.all("device").find(({ name }) => name === "Upper switch"),
        "it",
      );
      for (const port of edits.all("port"))
        if (port.device === upper.id && more.includes(port.label))
          edits.patch("port", port.id, {
            guards: { ...port.guards, signIn: true, profile: profileIn(edits).id },
          });
      return null;
    }),
  );
/** What the table says of a host, and of a stranger at its port: "Staff, signs in". */
function of(
  plan: Plan,
  name: string,
): Record<Situation | "stranger", string> & { differs: Situation[]; strangerDiffers: boolean } {
  const index = PlanIndex.of(plan);
  const row = must(
    whoGetsIn(index).find(({ host }) => host?.name === name),
    name,
  );
  const cells = must(row.cells, "its cells");
  return {
    well: entryText(index, cells.well),
    firstDown: entryText(index, cells.firstDown),
    allDown: entryText(index, cells.allDown),
    stranger: entryText(index, row.stranger),
    differs: SITUATIONS.filter((situation) => cells[situation].differs),
    strangerDiffers: row.stranger.differs,
  };
}

describe("who gets in", () => {
  test("a desk: phone and PC sign in, with one server as with two; without any the phone alone goes on", () => {
    expect(of(practice({}), "PC Reception 1")).toEqual({
      well: "Staff, signs in",
      firstDown: "Staff, signs in",
      allDown: "stays out",
      stranger: "Guests, failed",
      differs: [],
      strangerDiffers: false,
    });
    expect(of(practice({}), "Phone Reception 1")).toMatchObject({
      well: "Phones, signs in",
      allDown: "Phones, no server",
    });
    expect(of(practice({ serverDown: v(90) }), "PC Reception 1")).toMatchObject({
      allDown: "Guests, no server",
      differs: ["allDown"],
    });
    expect(of(practice({ serverDownVoice: null, serverDown: v(20) }), "Phone Reception 1")).toMatchObject({
      differs: ["allDown"],
    });
  });
  test("one that does not sign in gets in by its MAC address, among visitors, or stays out", () => {
    expect(of(practice({}), "Office printer").well).toBe("Staff, by MAC address");
    expect(of(practice({ byMac: false, failed: null }), "Office printer")).toMatchObject({
      well: "stays out",
      differs: ["well", "firstDown"],
    });
    expect(of(practice({ byMac: false, visitors: v(90) }), "Office printer")).toMatchObject({
      well: "Guests, visitors",
      stranger: "Guests, visitors",
      differs: ["well", "firstDown"],
    });
  });
  test("at the stage watch everybody passes, strangers too, and that is marked", () => {
    expect(of(practice({ stage: "watch", byMac: false }), "Office printer")).toEqual({
      well: "Staff, watched",
      firstDown: "Staff, watched",
      allDown: "Staff, watched",
      stranger: "Staff, watched",
      differs: [],
      strangerDiffers: true,
    });
  });
  test("at the stage limited what is named passes before a sign-in, and nothing else", () => {
    const fields = { stage: "limited", byMac: false, failed: null } as const;
    const before = [...servicesNamed("dhcp"), ...servicesNamed("dns")];
    expect(of(practice(fields), "Office printer").well).toBe("no address, limited");
    const plan = practice({ ...fields, before });
    expect(of(plan, "Office printer").well).toBe("Staff, limited");
    const index = PlanIndex.of(plan);
    const printer = must(
      [...plan.host.values()].find(({ name }) => name === "Office printer"),
      "it",
    );
    const ask = (name: string) =>
      probe(
        index,
        asClient(
          { at: "host", host: printer.id },
          { to: "gateway", service: must(servicesNamed(name)[0], name) },
        ),
        () => "",
      );
    expect(ask("dns").cause).toBeNull();
    expect(ask("https").cause?.sentence).toMatch(
      /does not sign in\. Until then https does not pass there\.$/,
    );
    // Who does sign in is not limited.
    expect(of(plan, "PC Reception 1").well).toBe("Staff, signs in");
    // What it answers does not pass either: nobody finds it.
    const laptop = must(
      [...plan.host.values()].find(({ name }) => name === "PC Reception 1"),
      "it",
    );
    const found = probe(
      index,
      asClient({ at: "host", host: laptop.id }, { to: "host", host: printer.id, service: null }),
      () => "",
    );
    expect(found.cause).not.toBeNull();
  });
  test("behind one port: one device, a phone and one, any number once one is in", () => {
    expect(of(practice({ hosts: "one" }), "Phone Reception 1").well).toBe("Phones, signs in");
    expect(of(practice({ hosts: "one" }), "PC Reception 1")).toMatchObject({
      well: "stays out",
      differs: ["well", "firstDown"],
    });
    expect(of(practice({ hosts: "phone" }), "PC Reception 1").well).toBe("Staff, signs in");
    const crowded = (hosts: SignIn["hosts"]) =>
      donePlan(
        afterEdit(practice({ hosts, byMac: false, failed: null }), ({ edits }) => {
          const named = (name: string) =>
            must(
              edits.all("host").find((host) => host.name === name),
              name,
            );
          edits.patch("host", named("Office printer").id, {
            attachment: named("Phone Reception 1").attachment,
          });
          return null;
        }),
      );
    expect(of(crowded("several"), "Office printer").well).toBe("stays out");
    expect(of(crowded("many"), "Office printer").well).toBe("Staff, with another");
    expect(of(crowded("phone"), "PC Reception 1").well).toBe("stays out");
  });
  test("by the server's answer each goes where its segment is, whatever the port's own VLAN is", () => {
    const plan = practice({ byAnswer: true }, ["5"]);
    expect(of(plan, "Card terminal 1").well).toBe("Cards, by MAC address");
    const moved = donePlan(
      afterEdit(plan, ({ edits }) => {
        for (const port of edits.all("port"))
          if (port.label === "5" && port.guards.signIn)
            edits.patch("port", port.id, { pvid: v(20), untagged: [v(20)] });
        return null;
      }),
    );
    expect(of(moved, "Card terminal 1").well).toBe("Cards, by MAC address");
    const own = donePlan(
      afterEdit(moved, ({ edits }) => {
        edits.patch("signIn", profileIn(edits).id, { byAnswer: false });
        return null;
      }),
    );
    expect(of(own, "Card terminal 1").differs).toContain("well");
  });
});

test("a server at a port with sign-in is not said to be shut out by its own failure", () => {
  const plan = donePlan(
    afterEdit(practice({}), ({ edits }) => {
      const server = must(
        edits.all("host").find(({ name }) => name === "Sign-in server 1"),
        "it",
      );
      const port = edits.need("port", server.attachment.at === "port" ? server.attachment.port : "");
      edits.patch("port", port.id, { guards: { ...port.guards, signIn: true } });
      return null;
    }),
  );
  const row = must(
    whoGetsIn(PlanIndex.of(plan)).find(({ host }) => host?.name === "Sign-in server 1"),
    "its row",
  );
  expect(row.cells?.allDown).toMatchObject({ how: "unasked", says: "is down itself", differs: false });
});

/** The same question without the table: servers that are down are unplugged by hand. */
function asked(plan: Plan, from: ProbeQuestion["from"], down: readonly string[]): Partial<Entry> {
  const then =
    down.length === 0
      ? plan
      : donePlan(
          afterEdit(plan, ({ edits }) => {
            for (const id of down) edits.patch("host", id, { attachment: { at: "unplaced" } });
            return null;
          }),
        );
  const { signIn, lease, cause } = probe(PlanIndex.of(then), asClient(from, { to: "address" }), () => "");
  const address = lease?.address ?? null;
  if (signIn === null) {
    const stopped = cause?.sentence ?? "";
    return { how: "unasked", address, says: stopped, why: stopped };
  }
  const { state: how, says, why } = signIn;
  const isSaid = cause === null || how === "closed" || how === "limited";
  return { how, address, says, why: isSaid ? why : `${why} ${cause.sentence}`.trim() };
}

/** Every cell of a plan's table is asked for by itself; answers how many. */
function heldToProbes(plan: Plan): number {
  let cellsAsked = 0;
  for (const { port, profile, host, cells, stranger } of whoGetsIn(PlanIndex.of(plan))) {
    expect([port.label, stranger]).toEqual([
      port.label,
      expect.objectContaining(asked(plan, { at: "port", port: port.id, tag: null }, [])),
    ]);
    const servers = profile?.servers ?? [];
    for (const situation of host === null ? [] : SITUATIONS) {
      const down: readonly string[] = servers.slice(
        0,
        { well: 0, firstDown: 1, allDown: servers.length }[situation],
      );
      if (host === null || cells === null || down.includes(host.id)) continue;
      cellsAsked += 1;
      expect([host.name, situation, cells[situation]]).toEqual([
        host.name,
        situation,
        expect.objectContaining(asked(plan, { at: "host", host: host.id }, down)),
      ]);
    }
  }
  return cellsAsked;
}

test("every cell is what a probe of the plan of then says, on random profiles and ports", () => {
  let cellsAsked = 0;
  for (let seed = 1; seed <= 12; seed += 1) {
    const roll = dice(seed);
    const maybe = (number: number) => (roll(2) === 0 ? null : v(number));
    const pick = <T>(all: readonly T[]): T => must(all[roll(all.length)], "one");
    const plan = practice(
      {
        byMac: roll(2) === 0,
        stage: pick(["watch", "limited", "closed"] as const),
        hosts: pick(["one", "phone", "several", "many"] as const),
        byAnswer: roll(2) === 0,
        visitors: maybe(90),
        failed: maybe(90),
        serverDown: maybe(20),
        serverDownVoice: maybe(30),
        before: roll(2) === 0 ? [] : [...servicesNamed("dhcp")],
      },
      Array.from({ length: 6 }, () => String(1 + roll(20))),
    );
    cellsAsked += heldToProbes(plan);
  }
  expect(cellsAsked).toBeGreaterThan(200);
});

describe("from link up to network", () => {
  const slow = { ...BLANK_SIGN_IN, id: "p", name: "Desks", servers: ["a", "b"], byMac: true } as SignIn;
  const at = (profile: Partial<SignIn>, fields: Partial<Omit<TimeAsked, "profile">> = {}) => {
    const { ready, sum } = timeline({
      profile: { ...slow, ...profile },
      speaks: false,
      isKnown: true,
      silent: 0,
      ...fields,
    });
    return [ready, sum];
  };
  test("what does not sign in is asked first, then looked up by MAC address; or the other way", () => {
    expect(at({})).toEqual([91, "3 x 30 s asked + 1 s at the server = 91 s"]);
    expect(at(quicker(slow))).toEqual([21, "2 x 10 s asked + 1 s at the server = 21 s"]);
    expect(at({ order: "macFirst" })).toEqual([1, "1 s at the server = 1 s"]);
    expect(at({ order: "macFirst", failed: v(90) }, { isKnown: false })).toEqual([
      91,
      "1 s at the server + 3 x 30 s asked = 91 s",
    ]);
  });
  test("a server that is down costs its tries; with all down there is a network where one is given", () => {
    expect(at({}, { silent: 1 })).toEqual([
      101,
      "3 x 30 s asked + 2 x 5 s for a server + 1 s at the server = 101 s",
    ]);
    expect(at({}, { silent: 2 })).toEqual([null, "3 x 30 s asked + 2 x 2 x 5 s for a server = 110 s"]);
    expect(at({ serverDown: v(20) }, { silent: 2 })[0]).toBe(110);
    expect(at({}, { speaks: true, silent: 1 })).toEqual([
      11,
      "2 x 5 s for a server + 1 s at the server = 11 s",
    ]);
  });
  test("without a way by MAC address it ends among the visitors, or never", () => {
    expect(at({ byMac: false, visitors: v(90) })).toEqual([90, "3 x 30 s asked = 90 s"]);
    expect(at({ byMac: false })[0]).toBeNull();
    expect(at({ stage: "watch" })[0]).toBe(0);
  });
  test("a printer rests after four questions, a PC goes on, and what is static asks nobody", () => {
    const hosts = [...fennelStreet().host.values()];
    const named = (name: string) =>
      must(
        hosts.find((host) => host.name === name),
        name,
      );
    expect(["Office printer", "PC Reception 1", "X-ray panel"].map((name) => patience(named(name)))).toEqual([
      60,
      null,
      null,
    ]);
  });
});

test("the next stages say whom they cut off: at closed the unknown, at limited those without DHCP", () => {
  const plan = practice({ stage: "watch", byMac: false, failed: null, before: [...servicesNamed("dhcp")] });
  const index = PlanIndex.of(plan);
  const [profile] = plan.signIn.values();
  const { hosts, cutOffAt } = stagesOf(index, must(profile, "a profile"));
  const cut = hosts.map((host) => [host.name, ...cutOffAt(host)]).filter((row) => row.length > 1);
  const printers = ["Consult 3 label printer", "Office printer"];
  expect(hosts.length).toBeGreaterThan(printers.length);
  expect(cut).toEqual(printers.map((name) => [name, "closed"]));
});

/** A site with sign-in at most of its ports, by one profile or another. */
function signingIn(plan: Plan, seed: number): Plan {
  const roll = dice(seed + 1);
  const isSo = (percent: number) => roll(100) < percent;
  return donePlan(
    afterEdit(plan, ({ edits }) => {
      const servers = edits
        .all("host")
        .filter(({ ipv4, attachment }) => ipv4 !== null && attachment.at === "port");
      const vids = edits.all("vlan").map((vlan) => vlan.vid);
      const any = <T>(list: readonly T[]): T | null => list[roll(Math.max(1, list.length))] ?? null;
      const profiles = ["a", "b"].map((name) => {
        const id = testId("signIn", name);
        edits.put("signIn", {
          ...BLANK_SIGN_IN,
          id,
          name,
          servers: servers.slice(0, 2).map((server) => server.id),
          byMac: isSo(70),
          byAnswer: isSo(40),
          visitors: isSo(40) ? any(vids) : null,
          failed: isSo(40) ? any(vids) : null,
          serverDown: isSo(40) ? any(vids) : null,
          stage: any(["watch", "limited", "closed", "closed"] as const) ?? "closed",
          before: [...servicesNamed("dhcp")],
          hosts: any(["one", "phone", "several", "many"] as const) ?? "several",
        });
        return id;
      });
      // Some pools are too small for those who ask.
      for (const scope of edits.all("scope"))
        if (isSo(30) && scope.family === 4)
          edits.patch("scope", scope.id, {
            pools: scope.pools.slice(0, 1).map(({ first }) => ({ first, last: first })),
          });
      for (const port of edits.all("port"))
        if (port.tagged.length < 2 && isSo(80))
          edits.patch("port", port.id, {
            guards: { ...port.guards, signIn: true, profile: any(profiles), isolated: isSo(5) },
          });
      return null;
    }),
  );
}

test("what is told of those who are alike is what each of them is told when it is asked by itself", () => {
  let cellsAsked = 0;
  for (let seed = 0; seed < 40; seed += 1)
    cellsAsked += heldToProbes(
      signingIn(seed % 4 === 0 ? fennelStreet() : mixedSite(dice(700 + seed)), seed),
    );
  expect(cellsAsked).toBeGreaterThan(800);
});
