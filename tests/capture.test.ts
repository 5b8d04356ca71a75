import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bramblewick } from "../demo/bramblewick";
import { fennelStreet } from "../demo/fennel-street";
import { lockkeepersHouse } from "../demo/lockkeepers-house";
import { asPrefix6, parseIpv4, parseIpv6, parsePrefix } from "../src/core/address";
import { listenAt, pcapng } from "../src/core/capture";
import { ipv4Packet, udp } from "../src/core/capture/internet";
import { nameUpdate } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { PlanIndex, type Plan, type ProbeGoal, type ProbeQuestion } from "../src/core/plan";
import { SERVICES } from "../src/core/policy";
import { asClient, probe } from "../src/core/probe";
import { donePlan, afterEdit } from "../src/core/testing/after-edit";

const folder = mkdtempSync(join(tmpdir(), "capture-"));
afterAll(() => rmSync(folder, { recursive: true }));

const CHECKED = ["ip", "udp", "tcp"].flatMap((name) => ["-o", `${name}.check_checksum:TRUE`]);
/** What the analyser reads from a file: a line for each frame, with the fields asked for. */
function readBack(file: Uint8Array, fields: readonly string[], filter = ""): string[][] {
  const path = join(folder, "seen.pcapng");
  writeFileSync(path, file);
  const out = execFileSync(
    "tshark",
    [
      "-r",
      path,
      ...CHECKED,
      "-T",
      "fields",
      ...(filter === "" ? [] : ["-Y", filter]),
      ...fields.flatMap((field) => ["-e", field]),
    ],
    { encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] },
  );
  return out
    .split("\n")
    .filter((line) => line !== "")
    .map((line) => line.split("\t"));
}
/** Frames that the analyser complains of: malformed, a wrong checksum, or any warning. */
const complaints = (file: Uint8Array): string[][] =>
  readBack(
    file,
    ["frame.number", "_ws.expert.message"],
    "_ws.malformed || _ws.expert.severity >= 6291456 || ip.checksum.status " +
      "== 0 || udp.checksum.status == 0 || tcp.checksum.status == 0 || " +
      "icmp.checksum.status == 0 || icmpv6.checksum.status == 0",
  );

const host = (plan: Plan, name: string) =>
  must(
    [...plan.host.values()].find((host) => host.name === name),
    name,
  );
const port = (plan: Plan, device: string, label: string) =>
  must(
    [...plan.port.values()].find(
      (port) => port.label === label && plan.device.get(port.device)?.name === device,
    ),
    label,
  );
const START = Date.UTC(2026, 10, 25, 9, 0, 0);
const ids = () => "00000000-0000-7000-8000-000000000001";

test("at a trunk a client's whole exchange is read without a complaint: tags, addresses, answers", () => {
  const plan = fennelStreet();
  const index = PlanIndex.of(plan);
  const outcome = probe(
    index,
    asClient(
      { at: "host", host: host(plan, "PC Reception 1").id },
      {
        to: "internet",
        service: must(
          SERVICES.find((service) => service.name === "https"),
          "https",
        ),
      },
    ),
    ids,
  );
  const file = pcapng(
    listenAt(index, outcome.exchange, port(plan, "Lower switch", "2").id),
    "Lower switch 2",
    START,
  );
  expect(complaints(file)).toEqual([]);
  const rows = readBack(file, [
    "vlan.id",
    "frame.protocols",
    "dhcp.option.dhcp",
    "dhcp.ip.your",
    "arp.opcode",
    "tcp.flags.syn",
    "frame.comment",
  ]);
  expect(
    rows.map(([vlan, protocols, dhcp, your, arp, syn]) =>
      [vlan, protocols?.split(":").at(-1), dhcp, your, arp, syn].join(" ").trim(),
    ),
  ).toEqual([
    "20 dhcp 1 0.0.0.0",
    "20 dhcp 2 10.24.20.49",
    "20 dhcp 3 0.0.0.0",
    "20 dhcp 5 10.24.20.49",
    "20 arp   1",
    "20 arp   2",
    "20 tcp    1",
    "20 tcp    1",
  ]);
  expect(rows.map((row) => row[6])).toContain("DHCP offer");
  const [offer] = readBack(
    file,
    [
      "dhcp.option.subnet_mask",
      "dhcp.option.router",
      "dhcp.option.domain_name_server",
      "dhcp.option.ip_address_lease_time",
      "dhcp.option.dhcp_server_id",
      "frame.time_epoch",
    ],
    "dhcp.option.dhcp == 5",
  );
  expect(offer?.slice(0, 5)).toEqual(["255.255.255.128", "10.24.20.1", "10.24.60.10", "28800", "10.24.20.1"]);
  expect(Math.floor(Number(offer?.[5]) || Date.parse(offer?.[5] ?? "") / 1000)).toBe(START / 1000);
});

const sites = { "the cider works": bramblewick, "the practice": fennelStreet, "the house": lockkeepersHouse };
test.each(Object.entries(sites))(
  "%s: whatever is asked from anywhere, in both families, no frame draws a complaint",
  (_, make) => {
    const plan = donePlan(
      afterEdit(make(), ({ edits }) => {
        for (const [i, segment] of edits.all("segment").entries()) {
          if (segment.gatewayInterface === null) continue;
          const prefix = must(asPrefix6(parsePrefix(`fd00:24:0:${i + 1}::/64`)), "a prefix");
          edits.patch("segment", segment.id, { prefixes6: [prefix], advertise: "slaac" });
          edits.patch("interface", segment.gatewayInterface, {
            addresses6: [must(parseIpv6(`fd00:24:0:${i + 1}::1`), "an address")],
          });
        }
      }),
    );
    const index = PlanIndex.of(plan);
    const goals: ProbeGoal[] = [
      { to: "internet", service: null },
      { to: "gateway", service: null },
      ...["dns", "ssh", "sip"].map((name): ProbeGoal => ({
        to: "gateway",
        service: SERVICES.find((service) => service.name === name) ?? null,
      })),
    ];
    let frames = 0;
    const seen: { ms: number; what: string; tag: number | null; bytes: readonly number[] }[] = [];
    for (const host of [...plan.host.values()].filter((h) => h.attachment.at === "port").slice(0, 12)) {
      for (const goal of goals)
        for (const family of [4, 6] as const) {
          const question: ProbeQuestion = { ...asClient({ at: "host", host: host.id }, goal), family };
          const { exchange } = probe(index, question, ids);
          const at = host.attachment.at === "port" ? host.attachment.port : "";
          const own = listenAt(index, exchange, at);
          frames += own.length;
          seen.push(...own.map((frame) => ({ ...frame, ms: frame.ms + seen.length * 100 })));
        }
    }
    expect(frames).toBeGreaterThan(200);
    // An echo that a wall drops has no answer, which is no fault of the frame.
    const usual = [
      /No response (found|seen)|Connection|retransmission/i,
      /previous segment|port numbers reused|duplicate|without/i,
    ];
    expect(
      complaints(pcapng(seen, "all", START)).filter(
        ([, message]) => !usual.some((pattern) => pattern.test(message ?? "")),
      ),
    ).toEqual([]);
  },
);

test("the recorded exchange of a real client and server has the same frames in the same order", () => {
  const recorded = readFileSync("tests/oracle/dhcp/reservation-outside-pool.pcap");
  const types = readBack(recorded, ["dhcp.option.dhcp", "ip.dst", "udp.dstport"], "dhcp");
  const plan = fennelStreet();
  const index = PlanIndex.of(plan);
  const terminal = host(plan, "Card terminal 2");
  const outcome = probe(index, asClient({ at: "host", host: terminal.id }, { to: "address" }), ids);
  const file = pcapng(
    listenAt(index, outcome.exchange, terminal.attachment.at === "port" ? terminal.attachment.port : ""),
    "terminal",
    START,
  );
  const mine = readBack(file, ["dhcp.option.dhcp", "ip.dst", "udp.dstport"], "dhcp");
  expect(mine.map(([type, , to]) => [type, to])).toEqual(types.map(([type, , to]) => [type, to]));
});

test("a call bears its marks: the phone's own on its cable, its segment's class behind it", () => {
  const plan = fennelStreet();
  const [phone, other] = [host(plan, "Phone Reception 1"), host(plan, "Phone Reception 2")];
  const marksAt = (of: Plan, device: string, label: string): string[] => {
    const index = PlanIndex.of(of);
    const goal: ProbeGoal = { to: "host", host: other.id, service: null };
    const { exchange } = probe(index, asClient({ at: "host", host: phone.id }, goal), ids);
    const file = pcapng(listenAt(index, exchange, port(of, device, label).id), "here", START);
    expect(complaints(file)).toEqual([]);
    return readBack(file, ["vlan.priority", "vlan.id", "ip.dsfield.dscp"], "tcp").map((row) => row.join(" "));
  };
  const desk = must(
    plan.port.get(phone.attachment.at === "port" ? phone.attachment.port : ""),
    "the phone's port",
  );
  const gear = must(plan.device.get(desk.device), "its switch").name;
  expect(marksAt(plan, gear, desk.label)[0]).toBe("5 30 46");
  const plain = donePlan(
    afterEdit(plan, ({ edits }) => {
      for (const { id } of edits.all("segment")) edits.patch("segment", id, { trafficClass: "bestEffort" });
    }),
  );
  // On its own cable a phone says what it likes; the other one's cable shows what the switch made of it.
  const there = must(
    plan.port.get(other.attachment.at === "port" ? other.attachment.port : ""),
    "the other's port",
  );
  const gearThere = must(plan.device.get(there.device), "its switch").name;
  expect(marksAt(plain, gear, desk.label)[0]).toBe("5 30 46");
  expect(marksAt(plain, gearThere, there.label)[0]).toBe("0 30 0");
  expect(marksAt(plan, gearThere, there.label)[0]).toBe("5 30 46");
  const trusted = donePlan(
    afterEdit(plain, ({ edits }) =>
      edits.patch("port", desk.id, { guards: { ...desk.guards, trustsMarks: true } }),
    ),
  );
  expect(marksAt(trusted, gearThere, there.label)[0]).toBe("5 30 46");
});

test("a name's update that follows a line is one to the analyser: zone, old addresses, present", () => {
  const home = lockkeepersHouse();
  const line = must(
    [...home.line.values()].find(({ dynamicName }) => dynamicName.name !== ""),
    "a line with a name",
  );
  const addressed = (addresses: readonly string[], name = "lock.example"): Plan =>
    donePlan(
      afterEdit(home, ({ edits }) => {
        edits.patch("line", line.id, { dynamicName: { ...line.dynamicName, name } });
        for (const leg of edits.all("interface"))
          if (leg.line === line.id)
            edits.patch("interface", leg.id, {
              addresses4: addresses.flatMap((address) => parseIpv4(address) ?? []),
              addresses6: addresses.flatMap((address) => parseIpv6(address) ?? []),
            });
      }),
    );
  const updateOf = (plan: Plan) => nameUpdate(PlanIndex.of(plan), must(plan.line.get(line.id), "the line"));
  const update = updateOf(addressed(["203.0.113.7", "2001:db8::7"]));
  const { bytes } = must("bytes" in update ? update : null, "an update");
  const [from, to] = ["192.0.2.1", "192.0.2.53"].map((text) => must(parseIpv4(text), text));
  const payload = udp(must(from, ""), must(to, ""), { sport: 5353, dport: 53, data: [...bytes] });
  const packet = ipv4Packet(must(from, ""), must(to, ""), {
    protocol: 17,
    ttl: 64,
    payload,
    identification: 1,
  });
  const frame = [...Array.from({ length: 12 }, () => 2), 8, 0, ...packet];
  const file = pcapng([{ ms: 0, what: "update", tag: null, bytes: frame }], "here", START);
  expect(complaints(file)).toEqual([]);
  const fields = [
    "dns.flags.opcode",
    "dns.qry.name",
    "dns.count.updates",
    "dns.resp.type",
    "dns.a",
    "dns.aaaa",
  ];
  expect(readBack(file, fields)).toEqual([["5", "example", "4", "1,28,1,28", "203.0.113.7", "2001:db8::7"]]);
  expect(updateOf(addressed([]))).toEqual({ refusal: expect.stringMatching(/Nobody has noted the address/) });
  for (const name of ["lock", "-lock.example", "lock..example", `${"x".repeat(64)}.example`])
    expect(updateOf(addressed(["203.0.113.7"], name))).toEqual({
      refusal: expect.stringMatching(/is no name in a zone/),
    });
});
