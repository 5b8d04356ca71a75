import { createSocket, type RemoteInfo, type Socket } from "node:dgram";
import { once } from "node:events";
import type { PlanIndex } from "@/core/plan";
import { decide, siteOf, type Words } from "./answers";
import { answered, isGenuine, isProven } from "./authenticators";
import { CODES, readPacket, type Packet } from "./packet";
import { Repeats } from "./repeats";
import { Sessions } from "./sessions";

/** What the server is asked to do. */
export interface StandIn {
  readonly port: number;
  readonly accountingPort: number;
  readonly words: Words;
  /** The plans that are answered from, as they are now. */
  readonly plans: () => readonly PlanIndex[];
  /** Hears what was answered to whom, in a line. */
  readonly say: (line: string) => void;
}

/** A server that listens. */
export interface Running {
  readonly port: number;
  readonly accountingPort: number;
  readonly sessions: Sessions;
  readonly close: () => Promise<void>;
}

/** An answer to a request, or null for one that is dropped without a word. */
type Answer = (packet: Packet, from: RemoteInfo) => Buffer | null;

/** Opens a socket on loopback that answers each request once, however often it comes. */
async function listen(port: number, answer: Answer): Promise<Socket> {
  const socket = createSocket("udp4");
  const repeats = new Repeats();
  socket.on("message", (datagram, from) => {
    const packet = readPacket(datagram);
    if (packet === null) return;
    const key = `${from.address} ${from.port} ${packet.code} ${packet.id}`;
    const made = () => Promise.resolve(answer(packet, from));
    void repeats.once(key, packet.authenticator.toString("hex"), made).then((reply) => {
      if (reply !== null) socket.send(reply, from.port, from.address);
    });
  });
  socket.bind(port, "127.0.0.1");
  await once(socket, "listening");
  return socket;
}

/**
 * Starts an authentication server that stands in for the planned ones: on loopback only, answering from the
 * register and the profiles (RFC 2865, RFC 2866).
 */
export async function startStandIn({ port, accountingPort, words, plans, say }: StandIn): Promise<Running> {
  const sessions = new Sessions();
  const { secret } = words;
  const access = await listen(port, (packet, from) => {
    if (packet.code !== CODES.accessRequest || !isProven(packet, secret)) return null;
    const { code, attributes, answer } = decide(plans(), packet, words);
    if (answer.letsIn) {
      sessions.note(packet, from.address, siteOf(plans(), packet)?.plan.site.id ?? "", answer);
      say(`let in ${answer.host.name}${answer.vid === null ? "" : ` with VLAN ${answer.vid}`}`);
    } else say(`not let in: ${answer.why}`);
    return answered(packet, code, attributes, secret);
  });
  const accounting = await listen(accountingPort, (packet) =>
    packet.code === CODES.accountingRequest && isGenuine(packet, secret)
      ? answered(packet, CODES.accountingResponse, [], secret)
      : null,
  );
  return {
    port: access.address().port,
    accountingPort: accounting.address().port,
    sessions,
    close: async () => {
      await Promise.all(
        [access, accounting].map((socket) => new Promise<void>((done) => socket.close(done))),
      );
    },
  };
}
