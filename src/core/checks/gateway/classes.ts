import { patchGuards } from "../../planners";
import { nameOf, type Host, type PlanIndex, type Port } from "../../plan";
import { classText } from "../../policy";
import type { Repair } from "../../repairs";
import { callsOn } from "../../ways-in";
import { check, type Found } from "../check";

interface OfSegment {
  readonly segment: string;
}

export const callsLikeOthers = check<OfSegment>({
  code: "calls-like-others",
  severity: "note",
  family: "guards",
  title: "Calls wait like everything else",
  why: "A call bears no waiting: its packets are marked so that gear on their way sends them first (RFC 4594).",
  reads: ["segment", "host"],
  find: (index) =>
    [...index.plan.segment.values()].flatMap((segment): Found<OfSegment>[] =>
      segment.trafficClass === "bestEffort" && index.hostsIn(segment.id).some(({ kind }) => kind === "phone")
        ? [{ subjects: [{ kind: "segment", id: segment.id }], data: { segment: segment.id } }]
        : [],
    ),
  describe: ({ segment }, index) =>
    `There are phones in ${nameOf(index, "segment", segment)}, and what they send is treated like any other.`,
  repairs: ({ segment }, index): Repair[] => [
    {
      label: `Mark what comes from ${nameOf(index, "segment", segment)} as ${classText("voice")}`,
      planner: "set-segment",
      args: { segment, trafficClass: "voice" },
      edit: (edits) => edits.patch("segment", segment, { trafficClass: "voice" }),
    },
  ],
});

interface OfLine {
  readonly line: string;
}

export const callsDoNotFit = check<OfLine & { readonly says: string }>({
  code: "calls-do-not-fit",
  severity: "warn",
  family: "gateway",
  title: "The planned calls are more than a line carries up",
  why: "Every call sends as much as it hears; what does not fit is lost, and nobody is understood.",
  reads: ["line", "host", "hostKind"],
  find: (index) =>
    [...index.plan.line.values()].flatMap((line) => {
      const calls = callsOn(index, line);
      return calls === null || calls.works
        ? []
        : [{ subjects: [{ kind: "line" as const, id: line.id }], data: { line: line.id, says: calls.says } }];
    }),
  describe: ({ line, says }, index) =>
    `Calls of all phones at once don't fit ${nameOf(index, "line", line)}: ${says}`,
  repairs: () => [],
});

export const priorityWithoutTag = check<OfLine & { readonly priority: number }>({
  code: "priority-without-tag",
  severity: "warn",
  family: "gateway",
  title: "The priority that a provider wants has no tag to stand in",
  why:
    "A priority stands in the frame's tag (IEEE 802.1Q section 9.6): " +
    "without the provider's VLAN there is none.",
  reads: ["line"],
  find: (index) =>
    [...index.plan.line.values()].flatMap((line) => {
      const priority = line.marks.voicePriority;
      return priority === null || line.vlanTag !== null
        ? []
        : [{ subjects: [{ kind: "line" as const, id: line.id }], data: { line: line.id, priority } }];
    }),
  describe: ({ line, priority }, index) =>
    `Calls have to bear priority ${priority} on ${nameOf(index, "line", line)}, which bears no tag.`,
  repairs: ({ line }, index) => [
    {
      label: `Note that ${nameOf(index, "line", line)} wants no priority`,
      planner: "set-line",
      args: { line, voicePriority: null },
      edit: (edits) =>
        edits.patch("line", line, { marks: { ...edits.need("line", line).marks, voicePriority: null } }),
    },
  ],
});

interface OnPort {
  readonly port: string;
  readonly host: string;
}

/** What is plugged into a port itself and is no phone. */
function strangerAt(index: PlanIndex, port: Port): Host | null {
  const [host] = index.groups("hostsByPort").get(port.id) ?? [];
  return host === undefined || host.kind === "phone" ? null : host;
}

export const marksOfAnybody = check<OnPort>({
  code: "marks-of-anybody",
  severity: "warn",
  family: "guards",
  title: "A port believes the marks of what anybody may plug in",
  why: "Who marks his own packets as voice goes first, and calls wait for his downloads.",
  reads: ["port", "host", "device"],
  find: (index) =>
    [...index.plan.port.values()]
      .filter(({ guards }) => guards.trustsMarks)
      .flatMap((port): Found<OnPort>[] => {
        const host = strangerAt(index, port);
        return host === null
          ? []
          : [
              {
                subjects: [
                  { kind: "port", id: port.id },
                  { kind: "host", id: host.id },
                ],
                data: { port: port.id, host: host.id },
              },
            ];
      }),
  describe: ({ port, host }, index) =>
    `${nameOf(index, "port", port)} keeps the marks of ${nameOf(index, "host", host)}, which is no phone.`,
  repairs: ({ port }, index) => [
    {
      label: `Let ${nameOf(index, "port", port)} keep no marks`,
      planner: "set-guard",
      args: { port, trustsMarks: false },
      edit: (edits) => patchGuards(edits, port, { trustsMarks: false }),
    },
  ],
});
