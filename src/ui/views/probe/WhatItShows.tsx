"use client";

import { formatAddress } from "@/core/address";
import type { Outcome } from "@/core/probe";
import { formatLease } from "@/core/planners";
import { poolsWithCounts } from "@/core/sheets";
import { nameOf, PlanIndex, type Scope } from "@/core/plan";
import { Fact } from "../../margin/parts";
import { useIndex } from "../../plan-store/use-plan";

function serverName(index: PlanIndex, { serverDevice, serverHost }: Scope): string {
  if (serverDevice !== null) return nameOf(index, "device", serverDevice);
  return serverHost === null ? "nobody" : nameOf(index, "host", serverHost);
}

/** What stands on the screen of what was plugged in, beside what the plan wants it to get. */
// eslint-disable-next-line complexity -- what was got beside what was planned, each may be missing
export function WhatItShows({ outcome }: { outcome: Outcome }) {
  const index = useIndex();
  const { lease, expected } = outcome;
  const segment = expected === null ? undefined : index.plan.segment.get(expected.segment);
  const scope =
    expected?.scope === null || expected === null ? undefined : index.plan.scope.get(expected.scope);
  const gateway = segment === undefined ? undefined : index.gatewayOf(segment)?.addresses4[0];
  const server = scope === undefined ? "nobody" : serverName(index, scope);
  return (
    <div className="grid grid-cols-2 max-[1000px]:grid-cols-1">
      <section className="border-r border-hair py-2">
        <h2 className="px-4 pt-2 text-14">What it shows</h2>
        {lease === null ? (
          <dl className="facts">
            <Fact name="Address">
              <span className="mono">169.254.x.x</span>, made up by itself (RFC 3927)
            </Fact>
            <Fact name="Mask">
              <span className="mono">255.255.0.0</span>
            </Fact>
            <Fact name="Gateway">none</Fact>
            <Fact name="DNS">none</Fact>
            <Fact name="It says">connected, no internet</Fact>
          </dl>
        ) : (
          <dl className="facts">
            <Fact name="Address">
              <span className="mono">{formatAddress(lease.address)}</span>
            </Fact>
            <Fact name="Mask">
              <span className="mono">{lease.mask}</span>
            </Fact>
            <Fact name="Gateway">
              <span className="mono">{lease.gateway === null ? "none" : formatAddress(lease.gateway)}</span>
            </Fact>
            <Fact name="DNS">
              <span className="mono">{lease.dns.map(formatAddress).join(", ") || "none"}</span>
            </Fact>
            <Fact name="Lease">
              {lease.leaseSeconds === null
                ? "none: static"
                : `${formatLease(lease.leaseSeconds)}, from ${lease.server}`}
            </Fact>
            <Fact name="Segment">
              {lease.segment === null ? "none of the plan's" : index.plan.segment.get(lease.segment)?.name}
            </Fact>
          </dl>
        )}
      </section>
      <section className="py-2">
        <h2 className="px-4 pt-2 text-14">What the plan wants it to get</h2>
        {segment === undefined ? (
          <p className="px-4 py-2 text-13 text-ink2">
            It reaches no segment, so nothing is meant for it here.
          </p>
        ) : (
          <dl className="facts">
            <Fact name="Segment">{segment.name}</Fact>
            <Fact name="Pool">
              {poolsWithCounts(index, segment)
                .map((pool) => `${pool.text}, count ${pool.count}`)
                .join("; ") || "none: addresses are static"}
            </Fact>
            <Fact name="Gateway">
              <span className="mono">{gateway === undefined ? "none" : formatAddress(gateway)}</span>
            </Fact>
            <Fact name="DNS">
              <span className="mono">{segment.dns.map(formatAddress).join(", ") || "none"}</span>
            </Fact>
            <Fact name="Server">{server}</Fact>
            {lease?.free === null || lease === null ? null : (
              <Fact name="Still free">{lease.free} of the pool</Fact>
            )}
          </dl>
        )}
      </section>
    </div>
  );
}
