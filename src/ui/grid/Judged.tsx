import type { ReactNode } from "react";
import type { Severity } from "@/core/checks";
import { severityColour, SeveritySign } from "../kit/signs";

/** A cell's text with the sign of the worst finding about it; undefined: nothing is wrong with it. */
export function Judged({ severity, children }: { severity: Severity | undefined; children: ReactNode }) {
  if (severity === undefined) return children;
  return (
    <span className={`inline-flex items-center gap-1 font-semibold ${severityColour(severity)}`}>
      {children}
      <SeveritySign severity={severity} size={11} />
    </span>
  );
}
