// Packets of RADIUS (RFC 2865 section 3, RFC 2866 section 3, RFC 5176 section 2.3).

/** What a packet is; the numbers are those of the RFCs. */
export const CODES = {
  accessRequest: 1,
  accessAccept: 2,
  accessReject: 3,
  accountingRequest: 4,
  accountingResponse: 5,
  disconnectRequest: 40,
  disconnectAck: 41,
  disconnectNak: 42,
  changeRequest: 43,
  changeAck: 44,
  changeNak: 45,
} as const;

/** Attributes by their numbers (RFC 2865, RFC 2866, RFC 2868, RFC 3579, RFC 4675). */
export const ATTRIBUTES = {
  userName: 1,
  userPassword: 2,
  nasAddress: 4,
  nasPort: 5,
  serviceType: 6,
  replyMessage: 18,
  sessionTimeout: 27,
  terminationAction: 29,
  callingStation: 31,
  nasIdentifier: 32,
  sessionId: 44,
  egressVlan: 56,
  tunnelType: 64,
  tunnelMedium: 65,
  messageAuthenticator: 80,
  tunnelGroup: 81,
} as const;

export interface Attribute {
  readonly type: number;
  readonly value: Buffer;
}
export interface Packet {
  readonly code: number;
  readonly id: number;
  readonly authenticator: Buffer;
  readonly attributes: readonly Attribute[];
}

const HEADER = 20;
/** The longest packet (RFC 2865 section 3). */
const LONGEST = 4096;

/**
 * A datagram as a packet; null for one that is malformed and has to be dropped without a word (RFC 2865 section
 * 3). What stands behind the length that it names is padding.
 */
export function readPacket(datagram: Buffer): Packet | null {
  const length = datagram.length < HEADER ? 0 : datagram.readUInt16BE(2);
  if (length < HEADER || length > LONGEST || length > datagram.length) return null;
  const attributes: Attribute[] = [];
  for (let at = HEADER; at < length;) {
    const size = at + 1 < length ? (datagram[at + 1] ?? 0) : 0;
    if (size < 2 || at + size > length) return null;
    attributes.push({ type: datagram[at] ?? 0, value: Buffer.from(datagram.subarray(at + 2, at + size)) });
    at += size;
  }
  return {
    code: datagram[0] ?? 0,
    id: datagram[1] ?? 0,
    authenticator: Buffer.from(datagram.subarray(4, HEADER)),
    attributes,
  };
}

/** A packet as it goes over the wire. */
export function writePacket({ code, id, authenticator, attributes }: Packet): Buffer {
  const body = Buffer.concat(
    attributes.map(({ type, value }) => Buffer.concat([Buffer.from([type, value.length + 2]), value])),
  );
  const head = Buffer.alloc(4);
  head.writeUInt8(code, 0);
  head.writeUInt8(id, 1);
  head.writeUInt16BE(HEADER + body.length, 2);
  return Buffer.concat([head, authenticator, body]);
}

/** The value of a packet's first attribute of a type; undefined without one. */
export const valueOf = ({ attributes }: Packet, type: number): Buffer | undefined =>
  attributes.find((attribute) => attribute.type === type)?.value;

export const textAttribute = (type: number, text: string): Attribute => ({
  type,
  value: Buffer.from(text, "utf8").subarray(0, 253),
});
export function numberAttribute(type: number, value: number): Attribute {
  const bytes = Buffer.alloc(4);
  bytes.writeUInt32BE(value, 0);
  return { type, value: bytes };
}
