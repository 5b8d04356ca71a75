/* eslint-disable max-lines -- import, reconcile and what comes out of it share one register */
import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress } from "../address";
import { listFindings, runChecks } from "../checks";
import { hostsFile, namedAddresses, reservationTable, zoneFiles } from "../formats";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../plan";
import { convertSchool } from "../planners";
import { addressRegisterTable } from "../sheets";
import { testId } from "../testing/build-plan";
import { badRowsTable, readHostTable, writeHostTable } from "./import-hosts";
import { guessColumns } from "./columns";
import { readSeenTable, reconcile, seenIn, takeSeen } from "./reconcile";
import { seriesFrom } from "./series";

const PLANS: readonly Plan[] = [fennelStreet(), lockkeepersHouse(), bramblewick()];
const fennel = must(PLANS[0], "Fennel Street");
const index = PlanIndex.of(fennel);
let made = 0;
const nextId = () => testId("register", `${(made += 1)}`);
function applied(plan: Plan, work: (edits: PlanEdits) => void): Plan {
  const edits = new PlanEdits(plan);
  work(edits);
  const result = applyChanges(plan, edits.changes());
  return must(result.ok ? result.value : null, `applies: ${result.ok ? "" : JSON.stringify(result.error)}`);
}
const hostNamed = (plan: Plan, name: string) =>
  must(
    [...plan.host.values()].find((h) => h.name === name),
    name,
  );

describe("import", () => {
  test("import(export(x)) = x: the register's own table changes nothing, in every demo site", () => {
    for (const plan of PLANS) {
      const of = PlanIndex.of(plan);
      const hosts = new Set([...plan.host.values()].map((h) => h.name));
      const table = addressRegisterTable(of).filter((row, i) => i === 0 || hosts.has(row[1] ?? ""));
      const read = readHostTable(of, table, guessColumns(table), null);
      expect(read.bad).toEqual([]);
      expect([read.good, read.same]).toEqual([[], plan.host.size]);
    }
  });

  test("what is entered on a static device is kept only where it differs from its segment", () => {
    const [, dns] = [
      0,
      must(
        must(
          [...fennel.segment.values()].find((segment) => segment.name === "Servers"),
          "Servers",
        )
          .dns.map(formatAddress)
          .join(" ") || "10.24.60.10",
        "its name server",
      ),
    ];
    const table = [
      ["Name", "Segment", "Address", "How", "Subnet mask", "Default gateway", "DNS servers"],
      ["Rack server", "Servers", "10.24.60.12", "static", "255.255.255.240", "10.24.60.1", dns],
      ["Odd server", "Servers", "10.24.60.13", "static", "/24", "10.24.60.9", "10.24.10.1, 10.24.60.10"],
    ];
    const read = readHostTable(index, table, guessColumns(table), null);
    expect(read.bad).toEqual([]);
    expect(
      read.good.map(({ host }) => [
        host.name,
        host.length4,
        host.gateway4 === null ? null : formatAddress(host.gateway4),
        host.dns.map(formatAddress),
      ]),
    ).toEqual([
      [
        "Rack server",
        null,
        null,
        dns === "10.24.60.10" && index.plan.segment.get(read.good[0]?.host.segment ?? "")?.dns.length === 0
          ? ["10.24.60.10"]
          : [],
      ],
      ["Odd server", 24, "10.24.60.9", ["10.24.10.1", "10.24.60.10"]],
    ]);
    const plan = applied(fennel, (edits) => writeHostTable(edits, nextId, read));
    const again = addressRegisterTable(PlanIndex.of(plan)).filter(
      (row, i) => i === 0 || row[1] === "Odd server",
    );
    expect(again[1]?.slice(-6)).toEqual(["/24", "10.24.60.9", "", "", "10.24.10.1, 10.24.60.10", ""]);
    expect(readHostTable(PlanIndex.of(plan), again, guessColumns(again), null)).toMatchObject({
      good: [],
      bad: [],
      same: 1,
    });
  });

  test("a mask or a gateway that can't be read is said, and the row is left out", () => {
    const table = [
      ["Name", "Segment", "Address", "How", "Mask", "Gateway"],
      ["Rack server", "Servers", "10.24.60.12", "static", "255.0.255.0", "router"],
    ];
    expect(
      readHostTable(index, table, guessColumns(table), null).bad.map(({ problems }) => problems),
    ).toEqual([
      [
        '"255.0.255.0" is no mask; write /25 or 255.255.255.128, or leave it empty.',
        '"router" is not one IPv4 address such as 10.24.20.1; write it, or leave it empty.',
      ],
    ]);
  });

  test("a register taken in from its table into an empty one is the register that was", () => {
    for (const plan of PLANS) {
      const hosts = new Set([...plan.host.values()].map((h) => h.name));
      const table = addressRegisterTable(PlanIndex.of(plan)).filter(
        (row, i) => i === 0 || hosts.has(row[1] ?? ""),
      );
      // Phones first: a PC behind one is read against the register.
      const empty = applied(plan, (edits) => {
        for (const host of edits.all("host"))
          if (host.attachment.at === "behind") edits.remove("host", host.id);
      });
      const bare = applied(empty, (edits) => {
        for (const kind of ["wish", "exception", "rule"] as const)
          for (const { id } of edits.all(kind)) edits.remove(kind, id);
        for (const profile of edits.all("signIn")) edits.patch("signIn", profile.id, { servers: [] });
        for (const { id, adminSignIn } of edits.all("device"))
          edits.patch("device", id, { adminSignIn: { ...adminSignIn, servers: [] } });
        for (const scope of edits.all("scope")) edits.patch("scope", scope.id, { serverHost: null });
        for (const line of edits.all("line")) edits.patch("line", line.id, { pins: [] });
        for (const forward of edits.all("forward")) edits.remove("forward", forward.id);
        for (const host of edits.all("host")) edits.remove("host", host.id);
      });
      const twice = [0, 1].reduce((now) => {
        const of = PlanIndex.of(now);
        return applied(now, (edits) =>
          writeHostTable(edits, nextId, readHostTable(of, table, guessColumns(table), null)),
        );
      }, bare);
      const rows = (of: Plan) =>
        addressRegisterTable(PlanIndex.of(of))
          .map((row) => row.join("|"))
          .sort();
      expect(rows(twice)).toEqual(rows(plan));
    }
  });

  test("columns are known by their heads, or by what is in them; each once", () => {
    expect(
      guessColumns([
        ["Device", "IP address", "MAC address", "Room", "Colour"],
        ["x", "10.24.20.34", "02:5a:10:00:00:01", "Lab", "red"],
      ]),
    ).toEqual({ hasHeads: true, fields: ["name", "address", "mac", "place", null] });
    expect(
      guessColumns([
        ["025a.1000.0001", "lab-pc-1", "10.24.20.34"],
        ["025a.1000.0002", "lab-pc-2", "10.24.20.35"],
      ]),
    ).toEqual({ hasHeads: false, fields: ["mac", "name", "address"] });
    expect(
      guessColumns([
        ["MAC", "MAC"],
        ["1", "2"],
      ]).fields,
    ).toEqual(["mac", null]);
    expect(guessColumns([])).toEqual({ hasHeads: false, fields: [] });
  });

  const bad: [string, string[], RegExp][] = [
    ["no MAC", ["lab-1", "02:5a:10:zz:00:01", "", "Staff"], /"02:5a:10:zz:00:01" is not a MAC address/],
    ["a group's MAC", ["lab-1", "03:5a:10:00:00:01", "", "Staff"], /stands for a group/],
    [
      "an address in no subnet",
      ["lab-1", "", "172.31.9.9", ""],
      /172\.31\.9\.9 lies in none of the site's subnets/,
    ],
    [
      "a broadcast address",
      ["lab-1", "", "10.24.20.127", "Staff"],
      /10\.24\.20\.127 is not a usable address of Staff/,
    ],
    [
      "an address of another subnet",
      ["lab-1", "", "10.24.40.9", "Staff"],
      /10\.24\.40\.9 is not a usable address of Staff/,
    ],
    [
      "an address that is taken",
      ["lab-1", "", "10.24.60.10", ""],
      /10\.24\.60\.10 belongs to Practice server already/,
    ],
    ["the gear's address", ["lab-1", "", "10.24.10.2", ""], /10\.24\.10\.2 belongs to Upper switch already/],
    ["no such segment", ["lab-1", "", "", "Attic"], /There is no segment called "Attic"/],
    ["no name", ["", "", "10.24.20.34", ""], /no name and no MAC address/],
  ];
  test.each(bad)("%s: said, set aside, and the good row beside it stays good", (_what, row, sentence) => {
    const rows = [["Name", "MAC", "Address", "Segment"], row, ["lab-2", "02:5a:10:aa:00:02", ".35", "Staff"]];
    const read = readHostTable(index, rows, guessColumns(rows), null);
    expect(read.bad.map((badRow) => [badRow.row, badRow.problems.join(" ")])).toEqual([
      [2, expect.stringMatching(sentence)],
    ]);
    expect(
      read.good.map((goodRow) => [
        goodRow.host.name,
        formatAddress(must(goodRow.host.ipv4, "an address")),
        goodRow.host.manner,
      ]),
    ).toEqual([["lab-2", "10.24.20.35", "reserved"]]);
    expect(badRowsTable(guessColumns(rows), read)[1]?.at(-1)).toMatch(sentence);
  });

  test("an empty cell keeps what a device has; DHCP takes its address away, a new one fixes it", () => {
    const heads = ["Name", "Kind", "MAC", "Address", "How", "Segment", "Place", "Notes"];
    const read = (...cells: string[]) =>
      readHostTable(index, [heads, cells], guessColumns([heads, cells]), null);
    const printer = hostNamed(fennel, "Reception printer");
    expect(read("Reception printer", "", "", "", "", "", "", "")).toMatchObject({
      good: [],
      bad: [],
      same: 1,
    });
    expect(read("Reception printer", "", "", "", "", "", "Front desk", "").good).toEqual([
      expect.objectContaining({
        known: printer.id,
        changed: ["place"],
        host: expect.objectContaining({ ipv4: printer.ipv4, mac: printer.mac, manner: "reserved" }),
      }),
    ]);
    expect(read("Reception printer", "", "", "", "by DHCP", "", "", "").good[0]?.host).toMatchObject({
      ipv4: null,
      manner: "dynamic",
    });
    expect(read("PC Office 1", "", "", ".33", "", "", "", "").good[0]?.host).toMatchObject({
      manner: "reserved",
    });
    expect(read("", "", must(printer.mac, "a MAC"), ".36", "", "", "", "").good[0]).toMatchObject({
      known: printer.id,
      changed: ["address"],
    });
  });

  test("rows that claim one thing are all wrong, each names the other", () => {
    const rows = [
      ["Name", "Address"],
      ["lab-1", "10.24.20.34"],
      ["lab-2", "10.24.20.34"],
      ["lab-1", "10.24.20.36"],
    ];
    const read = readHostTable(index, rows, guessColumns(rows), null);
    expect(read.bad.map((badRow) => badRow.problems.join(" "))).toEqual([
      expect.stringMatching(/lab-1 stands in row 4.*10\.24\.20\.34 stands in row 3/),
      "10.24.20.34 stands in row 2 too.",
      expect.stringMatching(/lab-1 stands in row 2/),
    ]);
  });

  test("any table is read without a throw, every row is judged, and what is good can be applied", () => {
    const cell = fc.oneof(
      fc.constantFrom(
        "",
        "lab-1",
        "Staff",
        "10.24.20.34",
        ".40",
        "02:5a:10:00:00:09",
        "reserved",
        "static",
        "by DHCP",
        "PC",
        "Upper switch 12",
        "behind Phone Office 1",
        "fd00::1",
      ),
      fc.string({ maxLength: 12 }),
    );
    const heads = fc.shuffledSubarray(
      ["Name", "MAC", "Address", "Segment", "How", "Kind", "Plugged into", "Place"],
      { minLength: 2 },
    );
    fc.assert(
      fc.property(
        heads,
        fc.array(fc.array(cell, { minLength: 1, maxLength: 8 }), { maxLength: 8 }),
        (head, body) => {
          const table = [head, ...body];
          const read = readHostTable(index, table, guessColumns(table), null);
          const counted = guessColumns(table).hasHeads ? body : table;
          expect(read.good.length + read.bad.length + read.same).toBe(
            counted.filter((row) => row.some((text) => text.trim() !== "")).length,
          );
          const after = applied(fennel, (edits) => writeHostTable(edits, nextId, read));
          const twice = (of: Plan) =>
            listFindings(runChecks(PlanIndex.of(of))).filter(
              (f) => f.code === "address-twice" || f.code === "host-outside-subnet",
            ).length;
          expect(twice(after)).toBe(twice(fennel));
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe("reconcile", () => {
  const mac = (name: string) => must(hostNamed(fennel, name).mac, name);
  const lease = `
IP Address       Hardware address     Host name        State
---------------  -------------------  ---------------  ------
10.24.20.20      ${mac("Reception printer")}    reception-printer  active
10.24.20.77      ${mac("Office printer")}    office-printer   active
10.24.20.61      02:5a:10:ee:00:01    visitor-pc       active
10.24.20.23      02:5a:10:ee:00:02    intruder         active
`;
  test("whitespace, commas and tabs are cut, columns guessed, heads fall away", () => {
    expect(readSeenTable(lease).fields).toEqual(["address", "mac", "name", null]);
    expect(seenIn(readSeenTable(lease)).map((s) => s.name)).toEqual([
      "reception-printer",
      "office-printer",
      "visitor-pc",
      "intruder",
    ]);
    const table =
      "VLAN,MAC,Type,Port\n20,025a.1000.0001,dynamic,ge-0/0/4\n90,025a.1000.0002,dynamic,ge-0/0/5";
    expect(readSeenTable(table).fields).toEqual(["vid", "mac", null, "port"]);
    expect(seenIn(readSeenTable(table)).map((s) => [s.mac, s.vid, s.port])).toEqual([
      ["02:5a:10:00:00:01", 20, "ge-0/0/4"],
      ["02:5a:10:00:00:02", 90, "ge-0/0/5"],
    ]);
    expect(
      readSeenTable(
        "? (10.24.20.1) at 02:5a:10:00:00:01 [ether] on eth0\n? " +
          "(10.24.20.2) at 02:5a:10:00:00:02 [ether] on eth0",
      )
        .fields.filter((f) => f !== null)
        .sort(),
    ).toEqual(["address", "mac", "port"]);
  });

  test("same, moved, new, clash and missing, each with its sentence", () => {
    const result = reconcile(index, seenIn(readSeenTable(lease)));
    expect(result.rows.map((row) => row.verdict)).toEqual(["same", "moved", "new", "clash"]);
    expect(result.rows[1]?.sentence).toBe(
      "Office printer has 10.24.20.23 in the plan and is seen at 10.24.20.77.",
    );
    expect(result.rows[2]?.sentence).toBe("visitor-pc is not in the register; it is in Staff.");
    expect(result.rows[3]?.sentence).toMatch(
      /^10\.24\.20\.23 is planned for Office printer \(02:5a:.*\) and seen at 02:5a:10:ee:00:02/,
    );
    expect(result.missing).toContain(hostNamed(fennel, "Consult 1 label printer").id);
    expect(result.missing).not.toContain(hostNamed(fennel, "Reception printer").id);
    expect(result.missing).not.toContain(hostNamed(fennel, "Camera Entrance").id);
  });

  test("a MAC address that nobody had read is learnt; laid beside again all is as planned", () => {
    const without = applied(fennel, (edits) =>
      edits.patch("host", hostNamed(fennel, "Practice server").id, { mac: null }),
    );
    const seen = seenIn(
      readSeenTable(
        `10.24.60.10 02:5a:10:ee:00:09 practice\n10.24.20.77 ` +
          `${mac("Office printer")} office\n10.24.20.61 02:5a:10:ee:00:01 visitor-pc`,
      ),
    );
    const of = PlanIndex.of(without);
    const { rows } = reconcile(of, seen);
    expect(rows.map((row) => row.verdict)).toEqual(["learnt", "moved", "new"]);
    const taken = applied(without, (edits) => takeSeen(edits, of, nextId, rows));
    expect(hostNamed(taken, "Practice server").mac).toBe("02:5a:10:ee:00:09");
    expect(reconcile(PlanIndex.of(taken), seen).rows.map((row) => row.verdict)).toEqual([
      "same",
      "same",
      "same",
    ]);
  });

  test("what a port that watches saw becomes rows: by VLAN of a switch's table, with the port", () => {
    const seen = seenIn(readSeenTable("20\t02:5a:10:ee:00:07\te5\n70\t02:5a:10:ee:00:08\te6"));
    const { rows } = reconcile(index, seen);
    expect(rows.map((row) => row.verdict)).toEqual(["new", "new"]);
    const taken = applied(fennel, (edits) => takeSeen(edits, index, nextId, rows));
    const added = [...taken.host.values()].filter(({ id }) => !fennel.host.has(id));
    expect(
      added.map(({ mac: own, segment, notes }) => [own, taken.segment.get(segment ?? "")?.name, notes]),
    ).toEqual([
      ["02:5a:10:ee:00:07", "Staff", "Seen at port e5"],
      ["02:5a:10:ee:00:08", "Building", "Seen at port e6"],
    ]);
  });

  test("two devices at one address are a clash, and any text is read without a throw", () => {
    expect(
      reconcile(
        index,
        seenIn(readSeenTable("10.24.20.90 02:5a:10:ee:00:01\n10.24.20.90 02:5a:10:ee:00:02")),
      ).rows.map((row) => row.verdict),
    ).toEqual(["clash", "clash"]);
    fc.assert(
      fc.property(fc.string({ maxLength: 300, unit: "binary" }), (text) => {
        reconcile(index, seenIn(readSeenTable(text)));
      }),
    );
  });
});

describe("schools", () => {
  test("reserved to static moves out of the pool, back keeps the address; without MAC all refuse", () => {
    const cards = [...fennel.host.values()].filter((h) => h.kind === "cardTerminal").map((h) => h.id);
    const typed = applied(fennel, (edits) => {
      expect(convertSchool(edits, index, cards, "typed")).toBeNull();
    });
    expect(
      listFindings(runChecks(PlanIndex.of(typed))).filter(
        (f) => f.code === "static-in-pool" && f.subjects.some((s) => cards.includes(s.id)),
      ),
    ).toEqual([]);
    const back = applied(typed, (edits) => {
      expect(convertSchool(edits, PlanIndex.of(typed), cards, "reserved")).toBeNull();
    });
    expect(cards.map((id) => back.host.get(id)?.ipv4)).toEqual(cards.map((id) => typed.host.get(id)?.ipv4));
    const without = applied(fennel, (edits) => edits.patch("host", cards[0] ?? "", { mac: null }));
    expect(convertSchool(new PlanEdits(without), PlanIndex.of(without), cards, "reserved")).toBe(
      "A reservation needs a MAC address; Card terminal 1 has none yet.",
    );
  });
});

test.each([
  ["cam-08", null, ["cam-08", "cam-09", "cam-10"]],
  ["10.24.20.9", null, ["10.24.20.9", "10.24.20.10", "10.24.20.11"]],
  ["10.24.20.250", "10.24.20.252", ["10.24.20.250", "10.24.20.252", "10.24.20.254"]],
  ["Desk 1 left", "Desk 3 left", ["Desk 1 left", "Desk 3 left", "Desk 5 left"]],
  ["02:5a:10:00:00:ff", null, ["02:5a:10:00:00:ff", "02:5a:10:00:01:00", "02:5a:10:00:01:01"]],
  ["Lab", null, ["Lab", "Lab", "Lab"]],
  ["fd24::9", null, ["fd24::9", "fd24::a", "fd24::b"]],
  ["5", "4", ["5", "4", "3"]],
])("the series from %s", (first, second, wanted) => {
  expect(seriesFrom(first, second, 3)).toEqual(wanted);
});

describe("DNS", () => {
  test.each(PLANS.map((plan) => [plan.site.name, plan] as const))(
    "%s: every fixed address has its name forwards and back, and the same ones",
    (_name, plan) => {
      const of = PlanIndex.of(plan);
      const { named } = namedAddresses(of);
      const zones = must(zoneFiles(of, 7), "zones");
      const records = zones.files.flatMap((file) =>
        file.text.split("\n").flatMap((line) => {
          const [label, , type, value] = line.split("\t");
          return type === "A" || type === "AAAA" ? [[`${label}.${file.zone}`, value] as const] : [];
        }),
      );
      for (const namedAddress of named)
        expect(records).toContainEqual([
          `${namedAddress.label}.${namedAddress.domain}`,
          formatAddress(namedAddress.address),
        ]);
      const pointers = zones.files.flatMap((file) =>
        file.text.split("\n").flatMap((line) => {
          const [label, , type, value] = line.split("\t");
          return type === "PTR" ? [[`${label}.${file.zone}`, value] as const] : [];
        }),
      );
      expect(pointers.length).toBe(named.length);
      for (const [name, value] of pointers) {
        if (!name.endsWith(".in-addr.arpa")) continue;
        const address = name.replace(".in-addr.arpa", "").split(".").reverse().join(".");
        expect(records).toContainEqual([(value ?? "").replace(/\.$/, ""), address]);
      }
      for (const file of zones.files)
        expect(file.text).toMatch(
          /^\$ORIGIN \S+\.\n\$TTL 3600\n@\tIN\tSOA\tns\.\S+\. hostmaster\.\S+\. \(\n\t\t7\t/,
        );
      expect(hostsFile(of).trimEnd().split("\n")).toHaveLength(named.length);
    },
  );

  test("reservations leave with what a server is told; without a server of names there is no zone", () => {
    const [heads, first] = reservationTable(index);
    expect([heads, first]).toEqual([
      ["Segment", "Server", "Address", "MAC", "Host name", "Device"],
      [
        "Staff",
        "Gateway",
        "10.24.20.20",
        must(hostNamed(fennel, "Reception printer").mac, "a MAC"),
        "reception-printer",
        "Reception printer",
      ],
    ]);
    expect(zoneFiles(PlanIndex.of({ ...fennel, segment: new Map(), interface: new Map() }), 1)).toBeNull();
  });
});
