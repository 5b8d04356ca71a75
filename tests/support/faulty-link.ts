import { connect, createServer, type Socket } from "node:net";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { must } from "@/core/kernel";

// A line to the database with faults in it: the client's packets go by here one at a time, and some are late,
// are never handed on, or are answered by an error of the server in place of what they ask for.

/** COM_QUERY of the client/server protocol: a statement as text follows. */
const QUERY = 3;

/** What the server would say: its number, SQLSTATE and words. */
interface Refusal {
  readonly code: number;
  readonly state: string;
  readonly words: string;
}
/** As a cluster's node says at COMMIT that another node's change came first, and as a lost deadlock reads. */
export const CERTIFICATION_FAILED: Refusal = {
  code: 1213,
  state: "40001",
  words: "Deadlock found when trying to get lock; try restarting transaction",
};
export const LOCK_WAITED_TOO_LONG: Refusal = {
  code: 1205,
  state: "HY000",
  words: "Lock wait timeout exceeded; try restarting transaction",
};
export const DISK_FULL: Refusal = {
  code: 1021,
  state: "HY000",
  words: "Disk full (tmp); waiting for someone to free some space... (errno: 28)",
};

export interface Faults {
  /** Milliseconds by which every packet of the client is late. */
  lateMs: number;
  /** What becomes of COMMITs, the next one first; then they are as ever. */
  commits: ("cut before" | "cut after" | Refusal)[];
  /** Nobody gets through, and whoever was is cut off. */
  isDown: boolean;
}

const framed = (sequence: number, payload: Buffer): Buffer => {
  const head = Buffer.alloc(4);
  head.writeUIntLE(payload.length, 0, 3);
  head.writeUInt8(sequence, 3);
  return Buffer.concat([head, payload]);
};
function errorPacket({ code, state, words }: Refusal): Buffer {
  const number = Buffer.alloc(2);
  number.writeUInt16LE(code);
  return framed(1, Buffer.concat([Buffer.from([0xff]), number, Buffer.from(`#${state}${words}`)]));
}
const statement = (packet: Buffer): string | null =>
  packet[4] === QUERY ? packet.subarray(5).toString("utf8") : null;

/** Whole packets off the front of what has come, and what is left. */
function packetsIn(bytes: Buffer): { packets: Buffer[]; rest: Buffer } {
  const packets: Buffer[] = [];
  let rest = bytes;
  while (rest.length >= 4 && rest.length >= 4 + rest.readUIntLE(0, 3)) {
    const end = 4 + rest.readUIntLE(0, 3);
    packets.push(rest.subarray(0, end));
    rest = rest.subarray(end);
  }
  return { packets, rest };
}

/** One client, between it and the database. */
function carry(client: Socket, server: Socket, faults: Faults): void {
  const cut = () => {
    client.destroy();
    server.destroy();
  };
  let answer: "pass" | "cut" | Buffer = "pass";
  server.on("data", (data) => {
    if (answer === "cut") return cut();
    client.write(answer === "pass" ? data : answer);
    answer = "pass";
  });
  const hand = (packet: Buffer): void => {
    if (faults.isDown) return cut();
    const fault = statement(packet) === "COMMIT" ? faults.commits.shift() : undefined;
    if (fault === "cut before") return cut();
    if (fault === "cut after") answer = "cut";
    // The server undoes it and answers once; what the client reads is why.
    if (typeof fault === "object") {
      answer = errorPacket(fault);
      server.write(framed(0, Buffer.concat([Buffer.from([QUERY]), Buffer.from("ROLLBACK")])));
      return;
    }
    server.write(packet);
  };
  let rest: Buffer = Buffer.alloc(0);
  let turn = Promise.resolve();
  client.on("data", (data) => {
    const read = packetsIn(Buffer.concat([rest, data]));
    rest = read.rest;
    for (const packet of read.packets) turn = turn.then(() => wait(faults.lateMs)).then(() => hand(packet));
  });
  for (const socket of [client, server]) {
    socket.on("error", cut);
    socket.on("close", cut);
  }
}

/** A line to the database of that address, without a fault at first. */
export async function faultyLink(url: string) {
  const faults: Faults = { lateMs: 0, commits: [], isDown: false };
  const folder = mkdtempSync(join(tmpdir(), "link-"));
  const address = new URL(url);
  const real = must(address.searchParams.get("socketPath"), "the database's socket");
  const here = join(folder, "db.sock");
  const clients = new Set<Socket>();
  const server = createServer((client) => {
    if (faults.isDown) return void client.destroy();
    clients.add(client);
    client.on("close", () => clients.delete(client));
    carry(client, connect(real), faults);
  });
  await new Promise<void>((done) => server.listen(here, done));
  address.searchParams.set("socketPath", here);
  return {
    url: address.href,
    faults,
    goDown: () => {
      faults.isDown = true;
      for (const client of clients) client.destroy();
    },
    close: async () => {
      for (const client of clients) client.destroy();
      await new Promise<void>((done) => server.close(() => done()));
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
