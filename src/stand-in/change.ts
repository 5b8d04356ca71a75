import { createSocket } from "node:dgram";
import { requestAuthenticator, isAnswerTo } from "./authenticators";
import { CODES, readPacket, writePacket, type Attribute, type Packet } from "./packet";

/** Where a switch takes changes of authorisation. */
export interface Listener {
  readonly address: string;
  readonly port: number;
  readonly secret: string;
}

/** How a change ended: taken, refused, or nobody answered. */
export type Changed = "ack" | "nak" | "silence";

const TRIES = 3;
const ANSWERS: Readonly<Record<number, Changed>> = {
  [CODES.changeAck]: "ack",
  [CODES.disconnectAck]: "ack",
  [CODES.changeNak]: "nak",
  [CODES.disconnectNak]: "nak",
};

let lastId = 0;

/**
 * Sends a change of authorisation or a disconnect (RFC 5176 section 2), again while nobody answers, and
 * believes only who knows the secret.
 */
export async function sendChange(
  { address, port, secret }: Listener,
  code: number,
  attributes: readonly Attribute[],
  waitMs = 2000,
): Promise<Changed> {
  lastId = (lastId + 1) % 256;
  const bare: Packet = { code, id: lastId, authenticator: Buffer.alloc(16), attributes };
  const request = { ...bare, authenticator: requestAuthenticator(bare, secret) };
  const socket = createSocket("udp4");
  try {
    return await new Promise<Changed>((resolve, reject) => {
      let tries = 0;
      const send = () => {
        if (tries === TRIES) return resolve("silence");
        tries += 1;
        socket.send(writePacket(request), port, address);
        timer = setTimeout(send, waitMs);
      };
      let timer = setTimeout(send, 0);
      socket.on("error", reject);
      socket.on("message", (datagram) => {
        const answer = readPacket(datagram);
        const ended = answer === null ? undefined : ANSWERS[answer.code];
        if (answer === null || ended === undefined || !isAnswerTo(answer, request, secret)) return;
        clearTimeout(timer);
        resolve(ended);
      });
    });
  } finally {
    socket.close();
  }
}
