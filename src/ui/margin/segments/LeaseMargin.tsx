"use client";

import { sizeLeases } from "@/core/commands";
import { useState } from "react";
import {
  Bar,
  BarChart,
  CartesianGrid,
  Cell,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import { rangeCount } from "@/core/address";
import { adviseLease, leasableCount, LEASES, offeredCount, peakUse, type Visits } from "@/core/dhcp";
import type { Scope, Segment } from "@/core/plan";
import { formatLease, freeRuns } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { Fact, MarginHead, Section } from "../parts";
import { ProposalPanel, useProposal } from "../findings/Proposal";
import { SegmentText } from "./ScopeFields";

/** Longer leases would make the others too small to see, and no visit needs them. */
const LONGEST_SHOWN = 86_400;

const VISITS = [
  ["perHour", "Arrivals an hour", "12"],
  ["stay", "They stay", "40 min"],
  ["open", "Doors open", "9 h"],
] as const;

/** Addresses in use at the peak against lease time, what is recommended and why; the formula stands below. */
export function LeaseMargin({ id }: { id: string }) {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const segment = index.plan.segment.get(id);
  const scope = segment === undefined ? undefined : index.scopesOf(id).find((scope) => scope.family === 4);
  if (segment === undefined) return null;
  return (
    <>
      <MarginHead kick="Lease and pool">
        <SegmentChip segment={segment} />
        {segment.name}
      </MarginHead>
      <Section title="Who comes and goes">
        {VISITS.map((row) => (
          <SegmentText key={row[0]} segment={segment} row={row} />
        ))}
      </Section>
      {scope === undefined ? (
        <p className="px-4 text-13 text-ink2">{segment.name} has no pool yet; set one in the table first.</p>
      ) : null}
      {scope !== undefined && segment.visit === null ? (
        <p className="px-4 pb-2 text-13 text-ink2">
          Say how many arrive in an hour; then it shows how many addresses are in use at the peak for each
          lease time.
        </p>
      ) : null}
      {scope === undefined || segment.visit === null ? null : (
        <Sizing segment={segment} scope={scope} visit={segment.visit} />
      )}
      <div className="section px-4 pt-3">
        <button type="button" className="button" onClick={() => select({ what: "segment", id })}>
          Back to the segment
        </button>
      </div>
    </>
  );
}

// eslint-disable-next-line max-lines-per-function -- one calculation, with what goes in and what comes out
function Sizing({ segment, scope, visit }: { segment: Segment; scope: Scope; visit: Visits }) {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [refusal, setRefusal] = useState<string | null>(null);
  const residents = index.hostsIn(segment.id).filter((host) => host.manner === "dynamic").length;
  const offered = Number(offeredCount(scope));
  const leasable = Number(leasableCount(index, scope));
  // What the pool could have: what it has, and the free run right behind it.
  const last = scope.pools.at(-1)?.last;
  const behind = freeRuns(index, segment).find(
    (run) => last !== undefined && BigInt(run.first) === BigInt(last) + 1n,
  );
  const room = leasable + (behind === undefined ? 0 : Number(rangeCount(behind)));
  const advice = adviseLease(visit, room, residents);
  const now = peakUse(visit, scope.leaseSeconds);
  const bars = LEASES.filter((lease) => lease <= LONGEST_SHOWN).map((lease) => ({
    lease,
    name: formatLease(lease),
    needed: peakUse(visit, lease).needed + residents,
  }));
  const take = () => {
    const missing = Math.max(0, advice.pool - leasable);
    setRefusal(look(sizeLeases({ scope: scope.id, leaseSeconds: advice.leaseSeconds, missing })));
  };
  return (
    <>
      <dl className="facts">
        <Fact name="Now">
          lease {formatLease(scope.leaseSeconds)}, pool {offered}:{" "}
          <b className={`font-semibold ${now.needed + residents > leasable ? "text-stop" : "text-sound"}`}>
            {now.needed + residents} in use at the peak
          </b>
        </Fact>
        <Fact name="Room">{room} addresses could be leased</Fact>
      </dl>
      <Section title="In use at the peak, by lease time">
        <div
          className="h-[210px] px-2"
          role="img"
          aria-label={
            "Addresses in use at the peak: " +
            `${bars.map((bar) => `${bar.name} ${bar.needed}`).join(", ")}; the pool has ${offered}`
          }
        >
          <ResponsiveContainer width="100%" height="100%" initialDimension={{ width: 320, height: 210 }}>
            <BarChart data={bars} margin={{ top: 16, right: 8, bottom: 4, left: 0 }} barCategoryGap={4}>
              <CartesianGrid vertical={false} stroke="var(--hair)" />
              <XAxis
                dataKey="name"
                interval={0}
                angle={-50}
                textAnchor="end"
                height={52}
                tick={{ fontSize: 12, fill: "var(--ink2)" }}
                stroke="var(--ink)"
                tickLine={false}
              />
              <YAxis
                width={36}
                tick={{ fontSize: 12, fill: "var(--ink2)" }}
                stroke="var(--rule)"
                tickLine={false}
                allowDecimals={false}
              />
              <Tooltip
                cursor={{ fill: "var(--hover)" }}
                itemStyle={{ color: "var(--ink)" }}
                labelStyle={{ color: "var(--ink2)" }}
                contentStyle={{
                  background: "var(--panel)",
                  border: "1px solid var(--rule)",
                  borderRadius: 3,
                  fontSize: 13,
                  color: "var(--ink)",
                }}
                formatter={(value) => [String(value), "in use"]}
              />
              <Bar dataKey="needed" isAnimationActive={false}>
                {bars.map((bar) => (
                  <Cell
                    key={bar.lease}
                    fill={bar.needed > leasable ? "var(--paper)" : "var(--act)"}
                    stroke={bar.needed > leasable ? "var(--stop)" : "var(--act)"}
                    strokeDasharray={bar.needed > leasable ? "3 2" : undefined}
                  />
                ))}
              </Bar>
              <ReferenceLine
                y={leasable}
                stroke="var(--ink)"
                strokeWidth={1.5}
                label={{
                  value: `the pool has ${leasable}`,
                  position: "insideBottomLeft",
                  offset: 4,
                  fontSize: 12,
                  fontWeight: 600,
                  fill: "var(--ink)",
                }}
              />
            </BarChart>
          </ResponsiveContainer>
        </div>
      </Section>
      <Section title="Recommended">
        <div className="px-4 text-13">
          <p className="mb-2">
            <b className="font-semibold">
              Lease {formatLease(advice.leaseSeconds)}, a pool of {advice.pool}.
            </b>{" "}
            {advice.reason}
          </p>
          <button type="button" className="button go" onClick={take}>
            Preview
          </button>
          {refusal === null ? null : (
            <p role="alert" className="pt-1 text-stop">
              {refusal}
            </p>
          )}
          {shown === null ? null : <ProposalPanel shown={shown} apply={apply} cancel={cancel} />}
        </div>
      </Section>
      <Section title="The formula">
        <div className="px-4 text-13 leading-[1.5]">
          <p>
            A client asks again at half its lease and mostly leaves without a word, so a visit holds its
            address for the whole half-leases it stays, and one lease more:
          </p>
          <p className="mono my-1">hold = ⌊stay ÷ ½ lease⌋ × ½ lease + lease</p>
          <p className="mono my-1">
            ⌊{formatLease(visit.staySeconds)} ÷ {formatLease(Math.max(60, scope.leaseSeconds / 2))}⌋ × ½ + 1
            lease = {formatLease(now.holdSeconds)}
          </p>
          <p className="mono my-1">
            in use = arrivals × hold{now.wholeDay ? ", at most one day’s doors" : ""} ={" "}
            {now.average.toFixed(1)}
          </p>
          <p>
            With room for the busiest of a hundred days, 2.326 × √in use more, and {residents} that are always
            there: <b className="font-semibold">{now.needed + residents}</b>.
          </p>
        </div>
      </Section>
    </>
  );
}
