import "server-only";
import { hash, verify } from "@node-rs/argon2";
import { Secret, TOTP } from "otpauth";
import { randomBytes } from "node:crypto";
import type { EntryTools } from "@/application/accounts";

/** Argon2id with 19 MiB, two passes and one lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
const STEP_SECONDS = 30;
const WORD = /.{5}/g;

/** What a password is held against where there is no account: it costs as much, and nothing fits. */
let nobody: Promise<string> | null = null;

const totp = (secret: string): TOTP =>
  new TOTP({ secret: Secret.fromBase32(secret), algorithm: "SHA1", digits: 6, period: STEP_SECONDS });

/** How accounts prove who they are: passwords by Argon2id, codes by RFC 6238. */
export const credentials: Pick<
  EntryTools,
  "hashPassword" | "isPassword" | "newSecret" | "stepOf" | "newRecoveryCode"
> = {
  hashPassword: (password) => hash(password, COST),
  isPassword: async (known, password) => {
    const against = known ?? (await (nobody ??= hash(randomBytes(32).toString("base64url"), COST)));
    const isRight = await verify(against, password);
    return isRight && known !== null;
  },
  newSecret: () => new Secret({ size: 20 }).base32,
  stepOf: (secret, code) => {
    const now = Date.now();
    const delta = totp(secret).validate({ token: code, timestamp: now, window: 1 });
    return delta === null ? null : Math.floor(now / 1000 / STEP_SECONDS) + delta;
  },
  newRecoveryCode: () =>
    (randomBytes(8).readBigUInt64BE().toString(36).padStart(13, "0").slice(-10).match(WORD) ?? []).join("-"),
};
