"use client";

import { useMemo } from "react";
import { v7 } from "uuid";
import type { Device, Host, PlanIndex, ProbeGoal, Service, WallEnd } from "@/core/plan";
import { probe } from "@/core/probe";
import { groupsOf, type ServiceSpan } from "@/core/rules";
import { filteringDevices, pairInList, serviceWords, STANDING_LISTS, type PairInList } from "@/core/walls";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { Section } from "../parts";

interface AtDevice {
  readonly device: Device;
  readonly pair: PairInList;
}

/** What the lists that stand on devices do with this pair; devices that it does not pass are left out. */
function pairsAt(index: PlanIndex, from: WallEnd, to: WallEnd): AtDevice[] {
  return filteringDevices(index).flatMap((device) => {
    const standing = index.derived(STANDING_LISTS).get(device.id);
    const pair =
      standing === undefined || standing.rules.length === 0
        ? null
        : pairInList(index, standing, standing.list, { from, to });
    return pair === null ? [] : [{ device, pair }];
  });
}

/** A wall beside the lists that stand on the devices: what they let through too much, and what they stop. */
export function ByTheLists({ from, to }: { from: WallEnd; to: WallEnd }) {
  const index = useIndex();
  const pairs = useMemo(() => pairsAt(index, from, to), [index, from, to]);
  if (pairs.length === 0) return null;
  return (
    <Section title="On the device">
      {pairs.map(({ device, pair }) => (
        <OneDevice key={device.id} device={device} pair={pair} from={from} to={to} />
      ))}
    </Section>
  );
}

function OneDevice({ device, pair, from, to }: AtDevice & { from: WallEnd; to: WallEnd }) {
  const index = useIndex();
  const { tooMuch, missing, allowed } = pair;
  const differs = tooMuch.length > 0 ? tooMuch : missing;
  const some = allowed.state === "mixed" ? ", not all of them everybody" : "";
  return (
    <div className="px-4 pb-2 text-13">
      <p>
        The list on {device.name} lets through {allowedText(index, pair)}
        {some}.
      </p>
      {differs.length === 0 ? (
        <p className="text-ink2">As the wall says, for every packet.</p>
      ) : (
        <>
          {tooMuch.length === 0 ? null : (
            <p className="mt-1 flex items-start gap-1 text-stop">
              <SeveritySign severity="stop" />
              <span>More than the wall: {serviceWords(index, tooMuch)}.</span>
            </p>
          )}
          {missing.length === 0 ? null : (
            <p className="mt-1 flex items-start gap-1 text-warn">
              <SeveritySign severity="warn" />
              <span>Missing: {serviceWords(index, missing)}.</span>
            </p>
          )}
          <ProbeIt spans={differs} from={from} to={to} device={device} />
        </>
      )}
    </div>
  );
}

function allowedText(index: PlanIndex, { allowed }: PairInList): string {
  if (allowed.state === "open") return "everything";
  return allowed.sometimes.length === 0 ? "nothing" : serviceWords(index, allowed.sometimes);
}

/** A service of those that differ, to ask with: the first port, ICMP, or nothing in particular. */
function serviceIn(spans: readonly ServiceSpan[]): Service | null {
  const group = groupsOf(spans).find(({ protocol }) => typeof protocol !== "number");
  if (group === undefined || typeof group.protocol === "number") return null;
  const { protocol, ports } = group;
  if (ports === null) return { name: "ping", protocol, ports: [] };
  // Port 0 is in a list's arithmetic and in no conversation.
  const range = ports.find(([, high]) => high > 0) ?? [1, 1];
  const port = range[0] <= 443 && range[1] >= 443 ? 443 : Math.max(range[0], 1);
  return { name: `${protocol} ${port}`, protocol, ports: [[port, port]] };
}

const hostsIn = (index: PlanIndex, zone: string): Host[] =>
  (index.groups("segmentsByZone").get(zone) ?? [])
    .flatMap((segment) => index.hostsIn(segment.id))
    .filter(({ attachment }) => attachment.at !== "unplaced");

const MOST_TRIED = 20;

/** A host that gets its address: what stands in its way before the wall would hide the wall. */
function hostThatWorks(index: PlanIndex, hosts: readonly Host[]): Host | undefined {
  const gets = ({ id }: Host) =>
    probe(
      index,
      { from: { at: "host", host: id }, as: { as: "client" }, mac: null, family: 4, goal: { to: "address" } },
      v7,
    ).stopsAt === null;
  return hosts.slice(0, MOST_TRIED).find(gets) ?? hosts[0];
}

/** Opens the counter-example in Probe. */
function ProbeIt({
  spans,
  from,
  to,
  device,
}: {
  spans: readonly ServiceSpan[];
  from: WallEnd;
  to: WallEnd;
  device: Device;
}) {
  const index = useIndex();
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const ends = useMemo(() => {
    const source = from.at === "zone" ? hostThatWorks(index, hostsIn(index, from.zone)) : undefined;
    const others = to.at === "zone" ? hostsIn(index, to.zone).filter(({ id }) => id !== source?.id) : [];
    return { source, target: hostThatWorks(index, others) };
  }, [index, from, to]);
  const { source, target } = ends;
  const service = serviceIn(spans);
  if (source === undefined || (to.at === "zone" && target === undefined))
    return <p className="mt-1 text-ink2">No device of the register stands on both sides to probe from.</p>;
  const goal: ProbeGoal =
    to.at === "zone" ? { to: "host", host: target?.id ?? "", service } : { to: to.at, service };
  const ask = () => {
    select(null);
    set({
      probeWay: "journey",
      probe: { from: { at: "host", host: source.id }, as: { as: "client" }, family: 4, goal },
    });
    goTo.view("probe");
  };
  return (
    <p className="mt-2 flex flex-wrap items-center gap-2">
      <button type="button" className="button" onClick={ask}>
        Probe {service?.name ?? "it"} from {source.name}
      </button>
      {device.filter.list === "planned" ? (
        <span className="text-12 text-ink2">Probes go by what the walls need; see Rules.</span>
      ) : null}
    </p>
  );
}
