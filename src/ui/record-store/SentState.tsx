"use client";

import { clsx } from "clsx";
import type { RecordEntry } from "@/core/records";
import { counted } from "@/core/repairs";
import { useOffline, type Offline } from "../frame/use-offline";
import { useRecord } from "./use-record";

/** Which entry it is, to whoever made it. */
function titled(entry: RecordEntry): string {
  if (entry.do === "tick") return `“${entry.step.title}”`;
  return entry.do === "test" ? `“${entry.test.at}: ${entry.test.does}”` : "An entry";
}

/** What of the record the server does not have yet, and why; nothing where it has all. */
export function SentState() {
  const { waiting, photos, trouble, isKept, refused, sync, drop } = useRecord();
  const unsent = unsentWords(waiting.length, photos.length);
  return (
    <div role="status">
      <OfflineState />
      {unsent === "" && trouble === null ? null : (
        <p
          className={clsx(
            "flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair bg-warn-wash px-4",
            "py-2 text-13 text-warn",
          )}
        >
          <span>
            {unsent === "" ? "" : `Not sent yet: ${unsent}${isKeptWords(isKept)}`}
            {trouble === null ? "" : ` ${trouble}`}
          </span>
          <button type="button" className="button" onClick={() => void sync()}>
            Try now
          </button>
        </p>
      )}
      {refused.map(({ entry, sentence }) => (
        <p
          key={entry.id}
          className={clsx(
            "flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair px-4 py-2 text-13",
            "text-stop",
          )}
        >
          <span>
            {titled(entry)} was not taken: {sentence}
          </span>
          <button type="button" className="button" onClick={() => drop(entry.id)}>
            Let go of it
          </button>
        </p>
      ))}
    </div>
  );
}

const unsentWords = (entries: number, photos: number): string =>
  [
    ...(entries === 0 ? [] : [counted(entries, "entry", "entries")]),
    ...(photos === 0 ? [] : [counted(photos, "photo", "photos")]),
  ].join(", ");

/** Whether the page opens without a connection, where that is to be said. */
function OfflineState() {
  const state = useOffline((offline) => offline.state);
  if (state === "unknown") return null;
  return (
    <p className={`border-b border-hair px-4 py-1 text-12 ${state === "ready" ? "text-ink2" : "text-warn"}`}>
      {OFFLINE_WORDS[state]}
    </p>
  );
}

const OFFLINE_WORDS: Readonly<Record<Exclude<Offline, "unknown">, string>> = {
  ready: "✓ This page opens without a connection, too.",
  notHere:
    "Leave the page open: this browser opens it again only with a connection. For more it needs TLS, or has " +
    "to run on the machine itself.",
  noRoom:
    "Leave the page open: it opens again only with a connection, since this browser has no room left to keep " +
    "it. Free some storage on the device, then reload the page.",
  untrusted:
    "Leave the page open: it opens again only with a connection, since this browser does not trust its " +
    "certificate. Install that on the device.",
};

const isKeptWords = (isKept: boolean): string =>
  isKept ? ", kept in this browser." : "; this browser keeps nothing: leave the page open.";
