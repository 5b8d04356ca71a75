import { clsx } from "clsx";
import type { Said } from "./stand-in-store";

const CAME = {
  done: { sign: "✓", colour: "text-sound" },
  byHand: { sign: "·", colour: "text-ink2" },
  silent: { sign: "✕", colour: "text-stop" },
  refused: { sign: "!", colour: "text-warn" },
} as const;

/** What came of the last that was done. */
export function Last({ log }: { log: readonly Said[] }) {
  const said = log.at(-1);
  if (said === undefined) return null;
  const { sign, colour } = CAME[said.came];
  return (
    <p role="status" className="border-b border-hair bg-paper px-4 py-2 text-15">
      <b className={`${colour} font-semibold`}>{sign}</b> {said.what}{" "}
      <span className={colour}>{said.words}</span>
    </p>
  );
}

/** What was done and what came of it, the last first. */
export function Log({ log }: { log: readonly Said[] }) {
  if (log.length === 0)
    return (
      <p className="max-w-[64ch] p-4 text-15">
        Each planned device stands in here and answers over the network (RESTCONF, RFC 8040), but only if the
        laptop reaches it from the port it is plugged into. Plug it in, send one operation after the other,
        save. A wrong order locks you out here, and not on the ladder; a power cut brings back what was saved.
      </p>
    );
  return (
    <ol aria-label="What came of it" aria-live="polite" reversed className="text-13">
      {[...log].reverse().map((said, at) => (
        <li
          key={log.length - at}
          className={clsx(
            "grid grid-cols-[28px_16px_minmax(0,1fr)] gap-2 border-b border-hair px-4 py-1",
            "min-[1500px]:border-l",
          )}
        >
          <span className="mono text-right">{log.length - at}</span>
          <b className={CAME[said.came].colour}>{CAME[said.came].sign}</b>
          <span>
            {said.what}{" "}
            <span className={said.came === "silent" ? "text-stop" : "text-ink2"}>{said.words}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}
