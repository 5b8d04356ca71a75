"use client";

import { useMemo } from "react";
import {
  groupsToDraft,
  groupTitle,
  groupKey,
  marksOf,
  schoolOf,
  SCHOOL_WORDS,
  tallyCabinets,
  tallySurvey,
} from "@/core/survey";
import { roomyCount } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { GroupChip } from "../../views/survey/ReadingStrip";
import { Section } from "../parts";

const FIGURE = "mono px-1 text-right";

/** What a draft would make of the survey, group by group; and which separation fits. */
// eslint-disable-next-line max-lines-per-function -- one summary, a section for each part of the draft
export function DraftSummary() {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const tally = useMemo(() => tallySurvey(index), [index]);
  const school = useMemo(() => schoolOf(index), [index]);
  const groups = useMemo(() => groupsToDraft(index, school), [index, school]);
  const marks = useMemo(
    () =>
      marksOf(
        index,
        groups.map(({ group }) => group),
      ),
    [index, groups],
  );
  const cabinets = tallyCabinets(tally);
  if (tally.groups.length === 0) return null;
  return (
    <>
      <Section title="What the draft will create">
        <table className="mx-4 w-[calc(100%-32px)] border-collapse text-13">
          <thead>
            <tr className="border-b border-ink text-12 text-ink2">
              <th scope="col" className="w-11 py-1 text-left font-medium">
                Tape
              </th>
              <th scope="col" className="text-left font-medium">
                Segment
              </th>
              <th scope="col" className="px-1 text-right font-medium">
                Now
              </th>
              <th scope="col" className="px-1 text-right font-medium">
                Plan
              </th>
              <th scope="col" className="text-right font-medium">
                Usable
              </th>
            </tr>
          </thead>
          <tbody>
            {groups.map(({ group, now, planned }) => (
              <tr key={groupKey(group)} className="h-6 border-b border-hair">
                <td>
                  <GroupChip index={index} group={group} marks={marks} height={16} />
                </td>
                <td>{groupTitle(index.plan.site, group)}</td>
                <td className={FIGURE}>{now}</td>
                <td className={FIGURE}>{planned}</td>
                <td className={FIGURE}>{roomyCount(planned)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="h-7 border-t border-ink font-semibold">
              <td colSpan={2}>{groups.length} segments</td>
              <td className={FIGURE}>{groups.reduce((sum, g) => sum + g.now, 0)}</td>
              <td className={FIGURE}>{tally.planned}</td>
              <td className={FIGURE}>{groups.reduce((sum, g) => sum + roomyCount(g.planned), 0)}</td>
            </tr>
          </tfoot>
        </table>
        <p className="px-4 pt-2 text-13 text-ink2">
          Plan is now plus {index.plan.site.conventions.growth} %, rounded up per segment; the gear’s own
          addresses are counted with it. Nothing is kept until you accept the preview.
        </p>
      </Section>
      {cabinets.length === 0 ? null : (
        <Section title="Cabinets">
          <ul className="px-4 text-13">
            {cabinets.map(({ cabinet, rooms, sockets, poeMw }) => (
              <li key={cabinet.id} className="flex min-h-6 items-center">
                <button
                  type="button"
                  className="underline decoration-rule underline-offset-2"
                  onClick={() => select({ what: "room", id: cabinet.id })}
                >
                  {cabinet.name}
                </button>
                <span className="ml-auto text-ink2">
                  {rooms} rooms, <span className="mono">{sockets}</span> ports,{" "}
                  <span className="mono">{(poeMw / 1000).toFixed(1)}</span> W
                </span>
              </li>
            ))}
          </ul>
        </Section>
      )}
      <Section title="Fits best">
        <p className="px-4 text-13">
          <b className="font-semibold">{SCHOOL_WORDS[school.school]}.</b> {school.reason}
        </p>
      </Section>
    </>
  );
}
