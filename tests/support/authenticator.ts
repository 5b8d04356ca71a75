import { isoCBOR } from "@simplewebauthn/server/helpers";
import { createHash, createSign, generateKeyPairSync, randomBytes } from "node:crypto";

// An authenticator in software (Web Authentication, level 3): a key of P-256, "none" attestation.

const sha256 = (data: string | Uint8Array): Buffer => createHash("sha256").update(data).digest();
const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString("base64url");

/** User present, user verified, and where a key is made, its data attached (section 6.1). */
const FLAGS = { sign: 0x05, make: 0x45 } as const;

interface At {
  readonly host: string;
  readonly origin: string;
}

/** One key on one device, which answers what it is asked to sign. */
export function authenticator({ host, origin }: At) {
  const { privateKey, publicKey } = generateKeyPairSync("ec", { namedCurve: "P-256" });
  const id = randomBytes(32);
  const { x = "", y = "" } = publicKey.export({ format: "jwk" });
  // A COSE key (RFC 9053): kind EC2, ES256, curve P-256.
  const cose = new Map<number, number | Uint8Array>([
    [1, 2],
    [3, -7],
    [-1, 1],
    [-2, Uint8Array.from(Buffer.from(x, "base64url"))],
    [-3, Uint8Array.from(Buffer.from(y, "base64url"))],
  ]);
  const client = (type: string, challenge: string): Buffer =>
    Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));
  const head = (flags: number, counter: number): Buffer => {
    const rest = Buffer.alloc(5);
    rest.writeUInt8(flags, 0);
    rest.writeUInt32BE(counter, 1);
    return Buffer.concat([sha256(host), rest]);
  };
  const whole = (response: object) => ({
    id: text(id),
    rawId: text(id),
    type: "public-key",
    clientExtensionResults: {},
    response,
  });
  return {
    make: (challenge: string) => {
      const length = Buffer.alloc(2);
      length.writeUInt16BE(id.length);
      const authData = Buffer.concat([
        head(FLAGS.make, 0),
        Buffer.alloc(16),
        length,
        id,
        isoCBOR.encode(cose),
      ]);
      const attestation = new Map<string, unknown>([
        ["fmt", "none"],
        ["attStmt", new Map()],
        ["authData", Uint8Array.from(authData)],
      ]);
      return whole({
        clientDataJSON: text(client("webauthn.create", challenge)),
        attestationObject: text(isoCBOR.encode(attestation as Parameters<typeof isoCBOR.encode>[0])),
      });
    },
    sign: (challenge: string, counter: number) => {
      const clientData = client("webauthn.get", challenge);
      const authData = head(FLAGS.sign, counter);
      const signature = createSign("sha256")
        .update(Buffer.concat([authData, sha256(clientData)]))
        .sign(privateKey);
      return whole({
        clientDataJSON: text(clientData),
        authenticatorData: text(authData),
        signature: text(signature),
      });
    },
  };
}
