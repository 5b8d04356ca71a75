import { execFile } from "node:child_process";
import { createSocket, type Socket } from "node:dgram";
import { once } from "node:events";
import { fennelStreet } from "../demo/fennel-street";
import { must } from "../src/core/kernel";
import { PlanIndex, type Plan } from "../src/core/plan";
import { afterEdit, donePlan } from "../src/core/testing/after-edit";
import {
  answered,
  isAnswerTo,
  isGenuine,
  requestAuthenticator,
  revealed,
} from "../src/stand-in/authenticators";
import { sendChange } from "../src/stand-in/change";
import {
  CODES,
  numberAttribute,
  readPacket,
  textAttribute,
  valueOf,
  writePacket,
  type Packet,
} from "../src/stand-in/packet";
import { Repeats } from "../src/stand-in/repeats";
import { startStandIn, type Running } from "../src/stand-in/server";

const SECRET = "a secret of this test";
const PASSWORD = "the password of this test";

/** The practice, whose server answers with VLANs. */
const plan: Plan = donePlan(
  afterEdit(fennelStreet(), ({ edits }) => {
    for (const profile of edits.all("signIn")) edits.patch("signIn", profile.id, { byAnswer: true });
    return null;
  }),
);
let now = PlanIndex.of(plan);
let running: Running;
const said: string[] = [];
beforeAll(async () => {
  running = await startStandIn({
    port: 0,
    accountingPort: 0,
    words: { secret: SECRET, password: PASSWORD },
    plans: () => [now],
    say: (line) => said.push(line),
  });
});
afterAll(() => running.close());

/** What a client of another make is answered. */
function radclient(
  attributes: Readonly<Record<string, string>>,
  how: "auth" | "acct" = "auth",
  secret = SECRET,
): Promise<string> {
  const text = Object.entries(attributes)
    .map(([name, value]) => `${name} = "${value}"`)
    .join("\n");
  const port = how === "auth" ? running.port : running.accountingPort;
  return new Promise((resolve) => {
    const child = execFile(
      "radclient",
      ["-x", "-r", "1", "-t", "2", `127.0.0.1:${port}`, how, secret],
      (_error, stdout, stderr) => resolve(`${stdout}${stderr}`),
    );
    child.stdin?.end(`${text}\n`);
  });
}
const hostCalled = (name: string) =>
  must(
    [...plan.host.values()].find((host) => host.name === name),
    name,
  );
const macOf = (name: string): string =>
  must(hostCalled(name).mac, "a MAC address").replaceAll(":", "-").toUpperCase();
const byMac = (mac: string) => ({ "User-Name": mac, "User-Password": mac, "Calling-Station-Id": mac });

test("a device known by its MAC address is let in with the VLAN of its segment", async () => {
  const out = await radclient({ ...byMac(macOf("Office printer")), "NAS-Identifier": "Upper switch" });
  expect(out).toMatch(/Received Access-Accept/);
  expect(out).toMatch(/Tunnel-Type:0 = VLAN/);
  expect(out).toMatch(/Tunnel-Medium-Type:0 = IEEE-802/);
  expect(out).toMatch(/Tunnel-Private-Group-Id:0 = "20"/);
});

test("a phone is told its VLAN tagged, and a PC signs in by name and password", async () => {
  const phone = await radclient(byMac(macOf("Phone Reception 1")));
  expect(phone).toMatch(/Egress-VLANID = (0x3100001e|822083614)/);
  const pc = await radclient({ "User-Name": "PC Reception 1", "User-Password": PASSWORD });
  expect(pc).toMatch(/Access-Accept[\s\S]*Tunnel-Private-Group-Id:0 = "20"/);
});

test("a stranger, a wrong password and one who may not sign in that way are rejected", async () => {
  const [stranger, wrong, printer] = await Promise.all([
    radclient(byMac("02-00-00-00-00-99")),
    radclient({ "User-Name": "PC Reception 1", "User-Password": "guessed" }),
    radclient({ "User-Name": "Office printer", "User-Password": PASSWORD }),
  ]);
  for (const out of [stranger, wrong, printer]) expect(out).toMatch(/Received Access-Reject/);
});

test("another secret is not answered: a client believes nothing, and the password can't be read", async () => {
  const out = await radclient(byMac(macOf("Office printer")), "auth", "another secret");
  expect(out).not.toMatch(/Received Access-Accept/);
  expect(await radclient({ "Acct-Session-Id": "1" }, "acct", "another secret")).toMatch(/No reply/);
  const taken = await radclient({ "Acct-Status-Type": "Start", "Acct-Session-Id": "1" }, "acct");
  expect(taken).toMatch(/Received Accounting-Response/);
}, 30_000);

/** A request by hand. */
function request(id: number, authenticator: Buffer, mac: string): Buffer {
  return writePacket({
    code: CODES.accessRequest,
    id,
    authenticator,
    attributes: [textAttribute(1, mac), numberAttribute(6, 10), textAttribute(31, mac)],
  });
}
/**
 * Sends datagrams one after another and gathers what comes back until all are answered, or a moment has
 * passed.
 */
async function exchange(socket: Socket, sent: readonly Buffer[], wanted: number): Promise<Buffer[]> {
  const got: Buffer[] = [];
  const done = new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, wanted === 0 ? 300 : 10_000);
    socket.on("message", (datagram) => {
      got.push(datagram);
      if (got.length < wanted) return;
      clearTimeout(timer);
      resolve();
    });
  });
  for (const datagram of sent) socket.send(datagram, running.port, "127.0.0.1");
  await done;
  socket.removeAllListeners("message");
  return got;
}

test("a repeated request is answered once and alike; with another authenticator it is new", async () => {
  const socket = createSocket("udp4").bind(0, "127.0.0.1");
  await once(socket, "listening");
  const before = said.length;
  const first = request(7, Buffer.alloc(16, 1), macOf("Office printer"));
  const got = await exchange(socket, [first, first, first], 3);
  expect(new Set(got.map((chunk) => chunk.toString("hex"))).size).toBe(1);
  expect(said.length - before).toBe(1);
  await exchange(socket, [request(7, Buffer.alloc(16, 2), macOf("Office printer"))], 1);
  expect(said.length - before).toBe(2);
  socket.close();
});

test("malformed packets are dropped without a word", async () => {
  const socket = createSocket("udp4").bind(0, "127.0.0.1");
  await once(socket, "listening");
  const whole = request(9, Buffer.alloc(16, 3), macOf("Office printer"));
  const longer = Buffer.from(whole);
  longer.writeUInt16BE(whole.length + 1, 2);
  const empty = Buffer.from(whole);
  empty[21] = 0;
  const over = Buffer.from(whole);
  over[21] = 250;
  const accept = Buffer.from(whole);
  accept[0] = CODES.accessAccept;
  const forged = writePacket({
    ...must(readPacket(whole), "it"),
    attributes: [textAttribute(1, macOf("Office printer")), { type: 80, value: Buffer.alloc(16, 9) }],
  });
  const bad = [Buffer.alloc(0), whole.subarray(0, 19), longer, empty, over, accept, forged];
  expect(await exchange(socket, bad, 0)).toEqual([]);
  // Padding behind the length that it names is none of it.
  const [padded] = await exchange(socket, [Buffer.concat([whole, Buffer.alloc(7, 255)])], 1);
  expect(padded?.[0]).toBe(CODES.accessAccept);
  socket.close();
});

test("the examples of RFC 2865 section 7.1", () => {
  const hex = (text: string) => Buffer.from(text.replaceAll(" ", ""), "hex");
  const asked = must(
    readPacket(
      hex(
        "01000038 0f403f94739780 57bd83d5cb98f4227a 01066e656d6f 02120dbe708d93d413ce3196e43f782a0aee " +
          "0406c0a80110 050600000003",
      ),
    ),
    "a packet",
  );
  expect(revealed(must(valueOf(asked, 2), "it"), asked.authenticator, "xyzzy5461")).toBe("arctangent");
  const accept = must(
    readPacket(hex("02000026 86fe220e7624ba2a1005f6bf9b55e0b2 060600000001 0f0600000000 0e06c0a80103")),
    "an answer",
  );
  expect(isAnswerTo(accept, asked, "xyzzy5461")).toBe(true);
  expect(isAnswerTo(accept, asked, "xyzzy5462")).toBe(false);
});

/** A small listener that plays the switch: takes what is genuine, and says what it was told. */
async function playSwitch(answer: number): Promise<{ port: number; told: Packet[]; close: () => void }> {
  const socket = createSocket("udp4").bind(0, "127.0.0.1");
  await once(socket, "listening");
  const told: Packet[] = [];
  socket.on("message", (datagram, from) => {
    const packet = readPacket(datagram);
    if (packet === null || !isGenuine(packet, SECRET)) return;
    told.push(packet);
    socket.send(answered(packet, answer, [], SECRET), from.port, from.address);
  });
  return { port: socket.address().port, told, close: () => socket.close() };
}

test("who is planned elsewhere is told by a change of authorisation, who is gone by a disconnect", async () => {
  await radclient(byMac(macOf("Office printer")));
  await radclient(byMac(macOf("Consult 3 label printer")));
  const played = await playSwitch(CODES.changeAck);
  const printer = hostCalled("Office printer");
  now = PlanIndex.of(
    donePlan(
      afterEdit(plan, ({ edits }) => {
        const other = must(
          edits.all("segment").find(({ name }) => name === "Guests"),
          "Guests",
        );
        edits.patch("host", printer.id, { segment: other.id, manner: "dynamic", ipv4: null });
        edits.patch("host", hostCalled("Consult 3 label printer").id, {
          mac: null,
          manner: "dynamic",
          ipv4: null,
        });
        return null;
      }),
    ),
  );
  // A switch that does not answer is told again the next time.
  const silent = () => Promise.resolve("silence" as const);
  for (let times = 0; times < 2; times += 1)
    expect((await running.sessions.follow(now, silent)).map(({ changed }) => changed)).toEqual([
      "silence",
      "silence",
    ]);
  const told = await running.sessions.follow(now, ({ address }, code, attributes) =>
    sendChange({ address, port: played.port, secret: SECRET }, code, attributes),
  );
  expect(told.map(({ changed }) => changed)).toEqual(["ack", "ack"]);
  expect(played.told.map(({ code }) => code).sort()).toEqual([CODES.disconnectRequest, CODES.changeRequest]);
  const change = must(
    played.told.find(({ code }) => code === CODES.changeRequest),
    "a change",
  );
  expect(valueOf(change, 81)?.toString()).toBe("90");
  expect(await running.sessions.follow(now, () => Promise.resolve("ack"))).toEqual([]);
  played.close();
});

test("a change is sent again while nobody answers, and an answer by another secret is none", async () => {
  const socket = createSocket("udp4").bind(0, "127.0.0.1");
  await once(socket, "listening");
  const got: Packet[] = [];
  socket.on("message", (datagram, from) => {
    const packet = must(readPacket(datagram), "a packet");
    got.push(packet);
    socket.send(answered(packet, CODES.changeAck, [], "another"), from.port, from.address);
  });
  const to = { address: "127.0.0.1", port: socket.address().port, secret: SECRET };
  expect(await sendChange(to, CODES.changeRequest, [textAttribute(1, "somebody")], 40)).toBe("silence");
  expect(got).toHaveLength(3);
  expect(got.every((packet) => requestAuthenticator(packet, SECRET).equals(packet.authenticator))).toBe(true);
  socket.close();
});

test("what is kept of answers is forgotten after a while, and never grows beyond bounds", async () => {
  let clock = 0;
  const repeats = new Repeats(() => clock);
  let made = 0;
  const ask = (from: string) =>
    repeats.once(from, "one", () => {
      made += 1;
      return Promise.resolve(Buffer.from(String(made)));
    });
  expect([await ask("a"), await ask("a")].map(String)).toEqual(["1", "1"]);
  clock = 10_000;
  expect(String(await ask("a"))).toBe("2");
  for (let n = 0; n < 5000; n += 1) await ask(`b ${n}`);
  // The oldest had to go.
  expect(String(await ask("a"))).toBe("5003");
});
