"use client";

import { clsx } from "clsx";
import type { Outcome, Step } from "@/core/probe";
import { tapeOf, DEVICE_KIND_WORDS } from "@/core/sheets";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { Chip } from "../../tape/Chip";

interface Stop {
  readonly key: string;
  readonly name: string;
  readonly what: string;
  readonly failed: boolean;
  readonly leaves: Step["tag"];
  readonly domain: string | null;
  readonly out: string;
}

/** The places the frame comes past, each once as long as it stays there. */
// eslint-disable-next-line complexity -- gear, host, wireless or outside: each stop has its own name
function useStops(outcome: Outcome): Stop[] {
  const { plan } = useIndex();
  const stops: Stop[] = [];
  const [first] = outcome.steps;
  if (first !== undefined)
    stops.push({
      key: "start",
      name: first.title,
      what: first.place,
      failed: !first.passed,
      leaves: first.tag,
      domain: null,
      out: "",
    });
  for (const step of outcome.steps.slice(1)) {
    const device = step.device === null ? undefined : plan.device.get(step.device);
    if (device === undefined) {
      if (step.tag !== undefined && step.place !== "scope")
        stops.push({
          key: `end ${step.title}`,
          name: step.title,
          what: step.place,
          failed: !step.passed,
          leaves: undefined,
          domain: null,
          out: "",
        });
      continue;
    }
    const last = stops.at(-1);
    const out = plan.port.get(step.ports.at(-1) ?? "")?.label ?? "";
    if (last?.key === device.id)
      stops[stops.length - 1] = {
        ...last,
        failed: last.failed || !step.passed,
        leaves: step.tag ?? last.leaves,
        out: out === "" ? last.out : out,
      };
    else
      stops.push({
        key: device.id,
        name: device.name,
        what: DEVICE_KIND_WORDS[device.kind],
        failed: !step.passed,
        leaves: step.tag,
        domain: device.domain,
        out,
      });
  }
  const last = outcome.steps.at(-1);
  if (
    last !== undefined &&
    !last.passed &&
    last.device === null &&
    last.tag === undefined &&
    outcome.steps.length > 1 &&
    last.title !== "Wall"
  )
    stops.push({
      key: "end",
      name: last.title,
      what: last.place,
      failed: !last.passed,
      leaves: undefined,
      domain: null,
      out: "",
    });
  return stops;
}

/** The way the frame went, drawn as gear and cables; the tag stands on each cable. */
export function LitPath({ outcome }: { outcome: Outcome }) {
  const index = useIndex();
  const stops = useStops(outcome);
  return (
    <section aria-label="The way the frame went" className="border-b border-hair px-4 py-3">
      <h2 className="mb-2 text-13 text-ink2">The way the frame went</h2>
      <ol className="flex flex-wrap items-center gap-y-3">
        {stops.map((stop, i) => {
          const next = stops[i + 1];
          const tape =
            typeof stop.leaves === "number"
              ? tapeOf(index, stop.domain ?? next?.domain ?? null, stop.leaves)
              : null;
          return (
            <li key={`${stop.key} ${i}`} className="flex items-center">
              <span
                className={clsx(
                  "block min-w-28 rounded border-2 px-3 py-1",
                  stop.failed ? "border-stop" : "border-act",
                )}
              >
                <b className="flex items-center gap-1 text-14 font-semibold">
                  {stop.name}
                  {stop.failed ? (
                    <span className="text-stop">
                      <SeveritySign severity="stop" />
                    </span>
                  ) : null}
                </b>
                <span className="text-12 text-ink2">{stop.what}</span>
              </span>
              {next === undefined ? null : (
                <span className="flex items-center" aria-hidden>
                  <span className="mono self-start pt-0 pl-1 text-12 text-ink2">{stop.out}</span>
                  <span className="h-[6px] w-5 bg-act" />
                  {tape === null ? (
                    <span className="border border-rule px-1 text-12 text-ink2">
                      {stop.leaves === null ? "untagged" : "–"}
                    </span>
                  ) : (
                    <Chip tape={tape} name={tape.name} />
                  )}
                  <span className="h-[6px] w-5 bg-act" />
                </span>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
