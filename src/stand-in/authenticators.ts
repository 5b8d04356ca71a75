import { createHash, createHmac, timingSafeEqual } from "node:crypto";
import { ATTRIBUTES, CODES, valueOf, writePacket, type Attribute, type Packet } from "./packet";

// What shows that a packet comes from somebody who knows the shared secret. The protocol names MD5; it is why
// the secret is long and why packets stay on wires that one trusts.

const BLOCK = 16;
const ZERO = Buffer.alloc(BLOCK);

const md5 = (...parts: readonly (Buffer | string)[]): Buffer => {
  const hash = createHash("md5");
  for (const part of parts) hash.update(part);
  return hash.digest();
};

const isSame = (a: Buffer, b: Buffer): boolean => a.length === b.length && timingSafeEqual(a, b);

/** The password of a request (RFC 2865 section 5.2); null for one that has no whole blocks. */
export function revealed(hidden: Buffer, authenticator: Buffer, secret: string): string | null {
  if (hidden.length < BLOCK || hidden.length > 128 || hidden.length % BLOCK !== 0) return null;
  const plain = Buffer.alloc(hidden.length);
  for (let at = 0; at < hidden.length; at += BLOCK) {
    const key = md5(secret, at === 0 ? authenticator : hidden.subarray(at - BLOCK, at));
    for (let i = 0; i < BLOCK; i += 1) plain[at + i] = (hidden[at + i] ?? 0) ^ (key[i] ?? 0);
  }
  const end = plain.indexOf(0);
  return plain.subarray(0, end < 0 ? plain.length : end).toString("utf8");
}

const withProof = (attributes: readonly Attribute[], proof: Buffer): Attribute[] =>
  attributes.map((attribute) =>
    attribute.type === ATTRIBUTES.messageAuthenticator ? { ...attribute, value: proof } : attribute,
  );

/** The Message-Authenticator of a packet (RFC 3579 section 3.2): over the packet with its own place empty. */
const proofOf = (packet: Packet, secret: string): Buffer =>
  createHmac("md5", secret)
    .update(writePacket({ ...packet, attributes: withProof(packet.attributes, ZERO) }))
    .digest();

/** Whether a request's Message-Authenticator is right, where it has one. */
export function isProven(packet: Packet, secret: string): boolean {
  const proof = valueOf(packet, ATTRIBUTES.messageAuthenticator);
  return proof === undefined || isSame(proof, proofOf(packet, secret));
}

/** The authenticator of a request that carries no password (RFC 2866 section 3, RFC 5176 section 2.3). */
export const requestAuthenticator = (packet: Packet, secret: string): Buffer =>
  md5(writePacket({ ...packet, authenticator: ZERO }), secret);

export const isGenuine = (packet: Packet, secret: string): boolean =>
  isSame(packet.authenticator, requestAuthenticator(packet, secret));

/** Codes whose answers carry a Message-Authenticator, in front of all else. */
const PROVEN: readonly number[] = [CODES.accessAccept, CODES.accessReject];

/** An answer to a request with its authenticator (RFC 2865 section 3), as it goes over the wire. */
export function answered(
  request: Pick<Packet, "id" | "authenticator">,
  code: number,
  attributes: readonly Attribute[],
  secret: string,
): Buffer {
  const { id, authenticator } = request;
  const place = { type: ATTRIBUTES.messageAuthenticator, value: ZERO };
  const bare: Packet = {
    code,
    id,
    authenticator,
    attributes: PROVEN.includes(code) ? [place, ...attributes] : attributes,
  };
  const whole = { ...bare, attributes: withProof(bare.attributes, proofOf(bare, secret)) };
  return writePacket({ ...whole, authenticator: md5(writePacket(whole), secret) });
}

/** Whether an answer is from somebody who knows the secret and had the request. */
export const isAnswerTo = (answer: Packet, request: Packet, secret: string): boolean =>
  answer.id === request.id &&
  isSame(answer.authenticator, md5(writePacket({ ...answer, authenticator: request.authenticator }), secret));
