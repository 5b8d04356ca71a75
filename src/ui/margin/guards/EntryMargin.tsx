"use client";

import { useMemo } from "react";
import { formatAddress } from "@/core/address";
import type { Host } from "@/core/plan";
import { entryText, timeAt, whoGetsIn, type Entry, type Situation, type WhoRow } from "@/core/guards";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { FindingsSection } from "../findings/FindingsSection";
import { Caution, Fact, MarginHead } from "../parts";
import { Gone } from "../ColumnsMargin";

const SITUATION_WORDS: Readonly<Record<Situation, string>> = {
  well: "all well",
  firstDown: "the first server down",
  allDown: "all servers down",
};

interface Props {
  readonly port: string;
  readonly host: string | null;
  readonly situation: Situation;
}

/** How it gets in, where it is then, and when. */
function EntryFacts({
  row,
  entry,
  situation,
  host,
}: { row: WhoRow; entry: Entry; host: Host | null } & Pick<Props, "situation">) {
  const index = useIndex();
  const segment = entry.segment === null ? undefined : index.plan.segment.get(entry.segment);
  const time = host === null ? null : timeAt(index, row.port, host, situation);
  return (
    <>
      <Fact name="Gets in">
        <span className="inline-flex items-center gap-2">
          {segment === undefined ? null : <SegmentChip segment={segment} height={16} />}
          {entryText(index, entry)}
        </span>
      </Fact>
      <Fact name="The port">{entry.says}</Fact>
      <Fact name="Why">{entry.why}</Fact>
      <Fact name="Address">{entry.address === null ? "none" : formatAddress(entry.address)}</Fact>
      {time === null ? null : (
        <Fact name="Ready">
          {time.is.ready === null ? "never" : `after ${time.is.ready} s`}: {time.is.sum}
          {time.waits === null ? "" : `; it asks for an address for ${time.waits} s`}
        </Fact>
      )}
    </>
  );
}

/** One who is planned at a port, or something that nobody knows, in one situation. */
export function EntryMargin({ port: id, host: hostId, situation }: Props) {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const at = index.plan.port.get(id)?.device ?? null;
  const rows = useMemo(() => (at === null ? [] : whoGetsIn(index, at)), [index, at]);
  const row = rows.find(({ port, host }) => port.id === id && (hostId === null || host?.id === hostId));
  if (row === undefined) return <Gone word="port with sign-in" />;
  const { port, device, cells, stranger, profile } = row;
  const host = hostId === null ? null : row.host;
  const entry = (host === null ? null : cells?.[situation]) ?? stranger;
  const about = [port.id, host?.id, profile?.id].filter((id) => id !== undefined);
  return (
    <>
      <MarginHead kick={`${device.name} port ${port.label}, ${SITUATION_WORDS[situation]}`}>
        {host?.name ?? "Another device"}
      </MarginHead>
      <dl className="facts">
        <EntryFacts row={row} entry={entry} situation={situation} host={host} />
        {profile === null ? null : (
          <Fact name="Profile">
            <button
              type="button"
              className="text-left underline"
              onClick={() => select({ what: "signIn", id: profile.id })}
            >
              {profile.name}
            </button>
          </Fact>
        )}
      </dl>
      {entry.differs ? <p className="section px-4 pt-2 text-stop">That is not what is meant here.</p> : null}
      <FindingsSection ids={new Set(about)} />
      <Caution head="Calls for help.">A phone without a network can’t call.</Caution>
    </>
  );
}
