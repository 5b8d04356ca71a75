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
});

export interface Config {
  readonly databaseUrl: string;
  readonly hosts: ReadonlySet<string>;
}

let known: Config | null = null;

/** The settings from the environment, read once: the one place that looks at it. */
export function config(): Config {
  if (known !== null) return known;
  const read = schema.parse(process.env);
  const local = ["127.0.0.1", "localhost", "[::1]"].map((name) => `${name}:${read.LISTEN_PORT}`);
  const further = read.ALLOWED_HOSTS.split(",")
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== "");
  known = { databaseUrl: read.DATABASE_URL, hosts: new Set([...local, ...further]) };
  return known;
}
