import "server-only";
import type { Told } from "@/application/live";
import { presentEntry } from "./present-entry";

/** Something is sent at least so often, so that whatever lies between does not think the line dead. */
const ALIVE_EVERY_MS = 15_000;

interface Source {
  readonly watch: (listener: (told: Told) => void) => () => void;
  /** Whether whoever listens may still do so. */
  readonly mayStay: () => Promise<boolean>;
}

/** By what is told: the same goes to everybody who listens. */
const WRITTEN = new WeakMap<Told, string>();
function written(told: Told): string {
  const known = WRITTEN.get(told);
  if (known !== undefined) return known;
  const { news } = told;
  const presented = news === null ? null : { ...news, entries: news.entries.map(presentEntry) };
  const text = JSON.stringify({ ...told, news: presented });
  WRITTEN.set(told, text);
  return text;
}

/**
 * Server-sent events (HTML standard, 9.2): the state now, and again whenever it changes. It ends when whoever
 * listens goes, or may not listen any longer.
 */
export function eventStream({ watch, mayStay }: Source): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let end: () => void = () => undefined;
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      const stop = watch((told) => send(`data: ${written(told)}\n\n`));
      const timer = setInterval(() => void check(), ALIVE_EVERY_MS);
      end = () => {
        stop();
        clearInterval(timer);
      };
      const check = async () => {
        // A database that is away says nothing about who may stay.
        const stays = await mayStay().catch(() => true);
        if (stays) return send(": here\n\n");
        end();
        controller.close();
      };
      send("retry: 2000\n\n");
    },
    cancel: () => end(),
  });
}
