"use client";

import { BLANK_ROOM, type PlanIndex, type Room } from "@/core/plan";
import { catalogueOf } from "@/core/catalogue";
import {
  groupKey,
  groupOf,
  groupsToDraft,
  groupTitle,
  marksOf,
  PURPOSE_ROWS,
  readNeeds,
  schoolOf,
  type Group,
} from "@/core/survey";
import { Chip } from "../../tape/Chip";

/** The tape a group wears: its segment's, or the one a draft would give it. */
export function GroupChip({
  index,
  group,
  marks,
  height = 18,
}: {
  index: PlanIndex;
  group: Group;
  marks: ReadonlyMap<string, string>;
  height?: number;
}) {
  const segment = [...index.plan.segment.values()].find(
    (segment) => groupKey({ purpose: segment.purpose, name: segment.group }) === groupKey(group),
  );
  const title = groupTitle(index.plan.site, group);
  const mark = marks.get(groupKey(group)) ?? "00";
  return (
    <Chip
      tape={{ ...(segment?.tape ?? PURPOSE_ROWS[group.purpose].tape), mark }}
      name={segment?.name ?? title}
      height={height}
    />
  );
}

/** How a line is understood while it is typed: what goes where, and what could not be read. */
export function ReadingStrip({ index, room, line }: { index: PlanIndex; room: Room | null; line: string }) {
  const readings = readNeeds(catalogueOf(index.plan), line);
  const groups = new Map<string, { group: Group; words: string[] }>();
  for (const { need } of readings) {
    if (need === null) continue;
    const group = groupOf(index.plan.site, room ?? NO_ROOM, need);
    const known = groups.get(groupKey(group)) ?? { group, words: [] };
    known.words.push(
      `${need.count} ` +
        `${need.what}${need.wireless ? ", wireless" : ""}${need.growth === null ? "" : ` +${need.growth} %`}`,
    );
    groups.set(groupKey(group), known);
  }
  const marks = marksOf(index, [
    ...new Map(
      [
        ...groupsToDraft(index, schoolOf(index)).map((tally) => tally.group),
        ...[...groups.values()].map(({ group }) => group),
      ].map((group) => [groupKey(group), group]),
    ).values(),
  ]);
  const problems = readings.flatMap((reading) => reading.problem ?? []);
  if (readings.length === 0)
    return (
      <p className="text-12 text-ink2">
        a number, then what: 3 PC, 2 phone+PC, 1 card terminal; also “wireless”, “no PoE”, “+20 %”, “for
        Studio”
      </p>
    );
  return (
    <div className="flex flex-wrap items-center gap-x-[14px] gap-y-1 text-12 text-ink2">
      {[...groups.values()].map(({ group, words }) => (
        <span key={groupKey(group)} className="inline-flex items-center gap-[5px]">
          <GroupChip index={index} group={group} marks={marks} />
          {words.join(", ")}
        </span>
      ))}
      {problems.map((problem) => (
        <span key={problem} className="text-stop">
          {problem}
        </span>
      ))}
    </div>
  );
}

const NO_ROOM: Room = { ...BLANK_ROOM, id: "", name: "", position: 0 };
