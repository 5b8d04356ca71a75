"use client";

import { clsx } from "clsx";
import { useEffect, useMemo } from "react";
import { counted } from "@/core/repairs";
import { FAILURE_WORDS, failureTable, singlePoints, type RankedLoss } from "@/core/failure";
import { nameOf } from "@/core/plan";
import { useUi } from "../../frame/use-ui";
import { Progress } from "../../kit/Progress";
import { RowList, type ListRow } from "../../kit/RowList";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { cancelStudy, isRunning, startStudy, useStudy } from "./use-study";
import { severityColour } from "@/ui/kit/signs";

const ROW = 28;
const COLUMNS = "grid-cols-[minmax(150px,1fr)_56px_52px_repeat(3,84px)_64px]";
const SERVICES = {
  gateway: "the way to the gateway",
  address: "the DHCP server",
  internet: "the internet",
} as const;

function triedWords(all: number | null, bad: number): string {
  if (all === null) return "each thing failed in turn";
  return (
    `${counted(all, "failure", "failures")} tried, ` +
    `${bad} ${bad === 1 ? "takes" : "take"} something from somebody`
  );
}

/** Every device, cable, supply and line failed in turn: who is cut off, who loses what, what takes over. */
// eslint-disable-next-line max-lines-per-function, complexity -- one sheet from its head to its last list
export function FailuresView() {
  const index = useIndex();
  const { plan, done, all, losses, fault } = useStudy(index.plan.site.id);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const isCurrent = plan === index.plan;
  const isEmpty = index.plan.device.size === 0;
  useEffect(() => {
    if (!isEmpty && losses === null && !isRunning(index.plan.site.id) && fault === null) startStudy(index);
  }, [index, losses, isEmpty, fault]);
  const points = useMemo(() => (losses === null ? [] : singlePoints(index, losses)), [index, losses]);
  const chosen = selection?.what === "failure" ? selection.key : null;
  const bad = (losses ?? []).filter((loss) => loss.harmed > 0).length;
  const running = isRunning(index.plan.site.id);
  const table = () => csv(failureTable(losses ?? []));
  return (
    <main className="sheet">
      <div className="head">
        <h1>Failures</h1>
        <p>{isEmpty ? "nothing to fail yet" : triedWords(losses?.length ?? null, bad)}</p>
        <span className="push" />
        {losses === null ? null : (
          <button
            type="button"
            className="button"
            onClick={() => download(fileName(index.plan.site.name, "failures.csv"), CSV_TYPE, table())}
          >
            Save CSV
          </button>
        )}
        {isEmpty || running ? null : (
          <button
            type="button"
            className={isCurrent ? "button" : "button go"}
            onClick={() => startStudy(index)}
          >
            Try them again
          </button>
        )}
      </div>
      {isEmpty ? (
        <p className="max-w-[60ch] p-4 text-15">
          Here each device, cable, supply and internet line fails in turn, and you see who is cut off and what
          takes over. Add the gear on Hardware first.
        </p>
      ) : null}
      {fault === null ? null : (
        <p role="alert" className="p-4 text-stop">
          {fault}
        </p>
      )}
      {running ? (
        <Progress label="Failures tried" done={done} all={all} onStop={cancelStudy}>
          {all === 0 ? "getting ready" : `${done} of ${all} tried`}
        </Progress>
      ) : null}
      {!running && losses !== null && !isCurrent ? (
        <p role="status" className="border-b border-hair px-4 py-2 text-13 text-warn">
          The plan has changed since these were tried.
        </p>
      ) : null}
      {losses === null && !running && !isEmpty && fault === null ? (
        <p className="p-4 text-13 text-ink2">Called off. “Try them again” starts anew.</p>
      ) : null}
      {losses === null ? null : (
        <>
          <Ranking losses={losses} chosen={chosen} choose={(key) => select({ what: "failure", key })} />
          <section
            aria-label="No second way"
            className="max-h-48 overflow-auto border-t border-ink"
            tabIndex={0}
          >
            <h2 className="px-4 pt-2 text-14">No second way</h2>
            {points.length === 0 ? (
              <p className="px-4 pb-3 text-13 text-sound">
                ✓ No single failure takes a service from anybody who stays on the network.
              </p>
            ) : (
              <ul className="px-4 pb-3 text-13">
                {points.map((point) => (
                  <li key={`${point.service} ${point.segment}`} className="flex gap-2 py-[2px]">
                    <b className="w-40 flex-none font-semibold">
                      {point.segment === "" ? "no segment" : nameOf(index, "segment", point.segment)}
                    </b>
                    <span className="min-w-0">
                      {SERVICES[point.service]}, for {counted(point.hosts, "device", "devices")}: hangs on{" "}
                      {point.by.slice(0, 3).join("; ")}
                      {point.by.length > 3 ? `; and ${point.by.length - 3} more` : ""}
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </section>
        </>
      )}
    </main>
  );
}

const marked = (sign: boolean) => (sign ? "font-semibold text-stop" : "");

function LossSign({ loss }: { loss: RankedLoss }) {
  if (loss.lost === 0 && loss.harmed === 0)
    return (
      <span className="text-sound" aria-hidden>
        ✓
      </span>
    );
  const severity = loss.lost > 0 ? "stop" : "warn";
  return (
    <span className={severityColour(severity)}>
      <SeveritySign severity={severity} size={12} />
    </span>
  );
}

/** The failures, those that cut most off first. */
function Ranking({
  losses,
  chosen,
  choose,
}: {
  losses: readonly RankedLoss[];
  chosen: string | null;
  choose: (key: string) => void;
}) {
  const at = losses.findIndex((loss) => loss.key === chosen);
  const number = (count: number, sign = false) => (
    <span className={`mono text-right ${count === 0 ? "text-ink2" : marked(sign)}`}>{count}</span>
  );
  const rowOf = (loss: RankedLoss | undefined): ListRow | null =>
    loss === undefined
      ? null
      : {
          key: loss.key,
          words:
            `${loss.name}: ${loss.cutOff.length} cut off, ${loss.noGateway.length} lose ` +
            `the gateway, ${loss.noInternet.length} the internet, ${loss.noAddress.length} ` +
            `find no DHCP server, ${loss.takeOver.length} ports take over`,
          content: (
            <>
              <span className="flex min-w-0 items-center gap-2">
                <LossSign loss={loss} />
                <span className="truncate">{loss.name}</span>
              </span>
              <span className="text-ink2">{FAILURE_WORDS[loss.failures[0]?.what ?? "device"]}</span>
              {number(loss.cutOff.length, true)}
              {number(loss.noGateway.length, true)}
              {number(loss.noInternet.length)}
              {number(loss.noAddress.length)}
              {number(loss.takeOver.length)}
            </>
          ),
        };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div
        aria-hidden
        className={clsx(
          "grid",
          COLUMNS,
          "h-8 flex-none items-center gap-2 border-b border-hair px-4 text-12 text-ink2",
        )}
      >
        <span>when this fails</span>
        <span>kind</span>
        <span className="text-right">cut off</span>
        <span className="text-right">no gateway</span>
        <span className="text-right">no internet</span>
        <span className="text-right">no addresses</span>
        <span className="text-right">take over</span>
      </div>
      <RowList
        label="Failures, the worst first"
        count={losses.length}
        height={ROW}
        columns={COLUMNS}
        at={at < 0 ? null : at}
        choose={(to) => choose(losses[to]?.key ?? "")}
        row={(i) => rowOf(losses[i])}
      />
    </div>
  );
}
