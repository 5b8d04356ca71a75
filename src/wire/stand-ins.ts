import "server-only";
import { readFile } from "node:fs/promises";
import { z } from "zod";
import type { Asking, BenchState, ByHand, Heard, NotAsked, StandIns } from "@/application/devices";
import { encodeChanges } from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";

const fileSchema = z.object({ address: z.url(), password: z.string().min(1) });
const stateSchema = z.object({
  revision: z.number(),
  changes: z.array(z.unknown()),
  unsaved: z.array(z.string()),
  starting: z.array(z.string()),
  laptop: z.string().nullable(),
});

const NONE: NotAsked = {
  code: "no-stand-ins",
  sentence: "No stand-in devices run here. The demo starts them: bin/demo.",
};
const GONE: NotAsked = {
  code: "no-stand-ins",
  sentence: "The stand-in devices do not answer; they may be just starting. Try again in some seconds.",
};
const UNKNOWN: NotAsked = {
  code: "no-stand-ins",
  sentence: "The stand-in devices do not know this site yet. Try again in some seconds.",
};

const TIMEOUT_MS = 20_000;
const YANG = "application/yang-data+json";

interface Call {
  readonly method: "GET" | "PUT" | "POST";
  readonly path: string;
  readonly body?: string;
}

const causeSchema = z.object({ cause: z.object({ code: z.literal("ECONNREFUSED") }) });
const isNobodyThere = (error: unknown): boolean => causeSchema.safeParse(error).success;

/** The answer; null for silence. */
async function call(file: string, { method, path, body }: Call): Promise<Result<Heard | null, NotAsked>> {
  let known: z.output<typeof fileSchema>;
  try {
    known = fileSchema.parse(JSON.parse(await readFile(file, "utf8")));
  } catch {
    return err(NONE);
  }
  const word = Buffer.from(`installer:${known.password}`).toString("base64");
  try {
    const answer = await fetch(`${known.address}${path}`, {
      method,
      redirect: "error",
      signal: AbortSignal.timeout(TIMEOUT_MS),
      headers: { authorization: `Basic ${word}`, accept: YANG, "content-type": YANG },
      ...(body === undefined ? {} : { body }),
    });
    return ok({ status: answer.status, text: await answer.text() });
  } catch (error) {
    // Nobody listens at all; else the connection was cut, as by a device that keeps silent.
    return isNobodyThere(error) ? err(GONE) : ok(null);
  }
}

/** What is asked as a request to a device's RESTCONF root (RFC 8040). */
function requestOf(root: string, asking: Asking): Call {
  switch (asking.what) {
    case "read":
      return { method: "GET", path: `${root}/data` };
    case "save":
      return { method: "POST", path: `${root}/operations/dianome-stand-in:save` };
    case "restart":
      return { method: "POST", path: `${root}/operations/ietf-system:system-restart` };
    case "enter":
      return asking.says === "yang"
        ? { method: "PUT", path: `${root}/data`, body: `{"ietf-restconf:data":${asking.text}}` }
        : {
            method: "POST",
            path: `${root}/operations/dianome-stand-in:enter`,
            body: JSON.stringify({ "dianome-stand-in:input": { changes: encodeChanges(asking.changes) } }),
          };
  }
}

const actBody = (act: ByHand): string =>
  JSON.stringify(act.do === "begin" ? { ...act, changes: encodeChanges(act.changes) } : act);

/** The stand-in devices whose address and password are in a file; null where the start had none. */
export const standInsIn = (file: string | null): StandIns => ({
  bench: async (site, act) => {
    if (file === null) return err(NONE);
    const path = `/${site}/bench`;
    const heard = await call(
      file,
      act === null ? { method: "GET", path } : { method: "POST", path, body: actBody(act) },
    );
    if (!heard.ok) return heard;
    if (heard.value === null) return err(GONE);
    const { status, text } = heard.value;
    if (status === 404) return err(UNKNOWN);
    if (status !== 200) return err({ code: "no-stand-ins", sentence: messageIn(text) });
    const state: BenchState = stateSchema.parse(JSON.parse(text));
    return ok(state);
  },
  ask: async (site, device, asking) =>
    file === null ? err(NONE) : call(file, requestOf(`/${site}/${device}/restconf`, asking)),
});

const errorsSchema = z.object({
  "ietf-restconf:errors": z.object({ error: z.array(z.object({ "error-message": z.string() })).min(1) }),
});

/** What a refusal says (RFC 8040 section 7.1). */
function messageIn(text: string): string {
  try {
    const read = errorsSchema.parse(JSON.parse(text));
    return read["ietf-restconf:errors"].error[0]?.["error-message"] ?? GONE.sentence;
  } catch {
    return GONE.sentence;
  }
}
