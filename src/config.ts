import "server-only";
import { z } from "zod";

const schema = z.object({
  DATABASE_URL: z.string().min(1, "DATABASE_URL is missing: start with bin/demo or bin/start"),
  /** The port that the start command chose; the Host header must name it. */
  LISTEN_PORT: z.coerce.number().int().min(1).max(65535).default(4100),
  /**
   * Further names under which the application may be asked for, separated by commas, such as
   * plan.example.org.
   */
  ALLOWED_HOSTS: z.string().default(""),
  /** The file that says where the stand-in devices listen; the demo writes it. */
  STAND_IN_DEVICES: z.string().default(""),
  /**
   * Devices whose configuration may be read over RESTCONF, separated by commas: addresses or names, with a port
   * where it is not 443. Empty: none.
   */
  READ_DEVICES: z.string().default(""),
  /** Where it listens over TLS beyond loopback, as addresses of pages, separated by commas. Empty: nowhere. */
  LISTEN_AT: z.string().default(""),
  LISTEN_CERTIFICATE: z.string().default(""),
  LISTEN_FINGERPRINT: z.string().default(""),
  /** A session that nobody used for so many hours is over. */
  SIGN_OUT_AFTER_HOURS: z.coerce.number().int().min(1).max(720).default(168),
});

/** Entries of a list with commas between. */
const entriesOf = (text: string): string[] =>
  text
    .split(",")
    .map((entry) => entry.trim())
    .filter((entry) => entry !== "");

export interface Config {
  readonly databaseUrl: string;
  readonly hosts: ReadonlySet<string>;
  /** Null where no stand-in devices run. */
  readonly standInFile: string | null;
  readonly readDevices: readonly string[];
  readonly idleHours: number;
  /** Null where it listens on loopback only. */
  readonly beyond: Beyond | null;
}

/** Where other machines get in, and how they tell that it is this one. */
export interface Beyond {
  readonly urls: readonly string[];
  readonly certificateFile: string;
  /** SHA-256 of the certificate. */
  readonly fingerprint: string;
}

let known: Config | null = null;

/** The settings from the environment, read once: the one place that looks at it. */
export function config(): Config {
  if (known !== null) return known;
  const read = schema.parse(process.env);
  const local = ["127.0.0.1", "localhost", "[::1]"].map((name) => `${name}:${read.LISTEN_PORT}`);
  const urls = entriesOf(read.LISTEN_AT);
  known = {
    databaseUrl: read.DATABASE_URL,
    hosts: new Set([
      ...local,
      ...entriesOf(read.ALLOWED_HOSTS.toLowerCase()),
      ...urls.map((url) => new URL(url).host),
    ]),
    beyond:
      urls.length === 0
        ? null
        : { urls, certificateFile: read.LISTEN_CERTIFICATE, fingerprint: read.LISTEN_FINGERPRINT },
    standInFile: read.STAND_IN_DEVICES === "" ? null : read.STAND_IN_DEVICES,
    idleHours: read.SIGN_OUT_AFTER_HOURS,
    readDevices: entriesOf(read.READ_DEVICES),
  };
  return known;
}
