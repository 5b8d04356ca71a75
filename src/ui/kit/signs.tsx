import { clsx } from "clsx";
import type { Severity } from "@/core/checks";

/** Severity is said by shape, colour and word: octagon, triangle, ring. */
export function SeveritySign({ severity, size = 12 }: { severity: Severity; size?: number }) {
  const common = {
    width: size,
    height: size,
    viewBox: "0 0 12 12",
    "aria-hidden": true,
    style: { flex: "none" },
  } as const;
  if (severity === "stop")
    return (
      <svg {...common}>
        <path d="M3.6.4h4.8l3.2 3.2v4.8l-3.2 3.2H3.6L.4 8.4V3.6z" fill="currentColor" />
      </svg>
    );
  if (severity === "warn")
    return (
      <svg {...common}>
        <path
          d="M6 1.4 11.2 11H.8z"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.7"
          strokeLinejoin="round"
        />
      </svg>
    );
  return (
    <svg {...common}>
      <circle cx="6" cy="6" r="4.6" fill="none" stroke="currentColor" strokeWidth="1.8" />
    </svg>
  );
}

const COLOUR = { stop: "text-stop", warn: "text-warn", note: "text-note" } as const;
export const severityColour = (severity: Severity): string => COLOUR[severity];

/** A shape with its count: "2 stop" in a sentence, the figure alone where space is short. */
export function SeverityCount({
  severity,
  count,
  word = false,
}: {
  severity: Severity;
  count: number;
  word?: boolean;
}) {
  return (
    <span
      className={clsx(
        "inline-flex items-center gap-[3px] text-13 font-semibold whitespace-nowrap",
        COLOUR[severity],
      )}
    >
      <SeveritySign severity={severity} />
      {count}
      {word ? ` ${severity}` : <span className="sr-only"> {severity}</span>}
    </span>
  );
}

export type Progress = "empty" | "begun" | "sound";

export function ProgressSign({ progress }: { progress: Progress }) {
  const common = {
    width: 12,
    height: 12,
    viewBox: "0 0 12 12",
    role: "img",
    "aria-label": progress,
  } as const;
  if (progress === "sound")
    return (
      <svg {...common} className="text-sound">
        <path d="m1.5 6.4 3 3.1 6-7" fill="none" stroke="currentColor" strokeWidth="2" />
      </svg>
    );
  return (
    <svg {...common} className="text-ink2">
      <rect x="1.5" y="1.5" width="9" height="9" fill="none" stroke="currentColor" />
      {progress === "begun" ? <path d="M1.5 10.5v-9l9 9z" fill="currentColor" /> : null}
    </svg>
  );
}

/** The application's sign: a cable with two rings. */
export const Brand = () => (
  <svg width="22" height="14" viewBox="0 0 22 14" aria-hidden="true">
    <path d="M0 7h22" stroke="var(--ink)" strokeWidth="6" />
    <path d="M6.5 1v12M11.5 1v12" stroke="var(--paper)" strokeWidth="5" />
    <path d="M6.5 1v12" stroke="var(--act)" strokeWidth="3" />
    <path d="M11.5 1v12" stroke="var(--ink)" strokeWidth="3" />
  </svg>
);
