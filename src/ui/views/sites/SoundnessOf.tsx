"use client";

import { useEffect, useState } from "react";
import type { SoundnessAnswer } from "@/http/contracts/answers";
import { SeverityCount } from "../../kit/signs";
import { call } from "../../plan-store/api";

const SEVERITIES = ["stop", "warn", "note"] as const;

/** What is found wrong in a site, asked for when its row is shown. */
export function SoundnessOf({ site, revision }: { site: string; revision: number }) {
  const [found, setFound] = useState<SoundnessAnswer | "refused" | null>(null);
  useEffect(() => {
    let isShown = true;
    void call<SoundnessAnswer>(`/api/sites/${site}/soundness`, "GET").then((answer) => {
      if (isShown) setFound(answer.ok ? answer.value : "refused");
    });
    return () => {
      isShown = false;
    };
  }, [site, revision]);
  if (found === null) return <span className="text-ink2">checking …</span>;
  if (found === "refused") return <span className="text-ink2">not known now</span>;
  const { findings } = found;
  if (findings === null) return <span className="text-ink2">open it to see</span>;
  const shown = SEVERITIES.filter((severity) => findings[severity] > 0);
  if (shown.length === 0) return <span className="text-sound">sound</span>;
  return (
    <span className="flex gap-[7px]">
      {shown.map((severity) => (
        <SeverityCount key={severity} severity={severity} count={findings[severity]} />
      ))}
    </span>
  );
}
