import { nameOf, pointsOf, type PlanIndex, type ProbeQuestion, type Ssid } from "../../plan";
import type { Sight } from "../sight";
import { edited, beside, type Suspect } from "../suspect";

function ssidSuspects(index: PlanIndex, ssid: Ssid): Suspect[] {
  const { id, name } = ssid;
  const points = pointsOf(index, ssid);
  const subjects = [{ kind: "ssid" as const, id }];
  const seenAt = points.map((point) => ({ on: "device" as const, device: point.id }));
  const right = nameOf(index, "segment", ssid.segment);
  const elsewhere = [...index.plan.segment.values()]
    .filter((segment) => segment.id !== ssid.segment && segment.vlan !== null && segment.tunnel === null)
    .map((other) =>
      edited(
        {
          id: `ssid ${id} ${other.id}`,
          kind: "wireless",
          words: `${name} leads into ${other.name}, not into ${right}`,
          mend: `Set the VLAN of ${name} to that of ${right} at its access points, and save.`,
          subjects,
          seenAt,
        },
        (edits) => edits.patch("ssid", id, { segment: other.id }),
      ),
    );
  const silent = points.map((point) =>
    edited(
      {
        id: `air ${id} ${point.id}`,
        kind: "wireless",
        words: `${point.name} does not offer ${name}`,
        mend: `Switch ${name} on at ${point.name}, and save.`,
        subjects: [...subjects, { kind: "device", id: point.id }],
        seenAt: [{ on: "device", device: point.id }],
      },
      (edits) =>
        edits.patch("ssid", id, {
          at: points.filter((device) => device.id !== point.id).map((device) => device.id),
        }),
    ),
  );
  const apart = ssid.isolation
    ? []
    : [
        edited(
          {
            id: `apart ${id}`,
            kind: "wireless",
            words: `${name} keeps its stations apart`,
            mend: `Switch the isolation of stations on ${name} off, and save.`,
            subjects,
            seenAt,
          },
          (edits) => edits.patch("ssid", id, { isolation: true }),
        ),
      ];
  return [...elsewhere, ...silent, ...apart];
}

/** A laptop that is plugged in and still on the air goes by the name that it joined. */
function stillOnAir(index: PlanIndex, ssid: Ssid): Suspect[] {
  const [point] = pointsOf(index, ssid);
  if (point === undefined) return [];
  const moved = (question: ProbeQuestion): ProbeQuestion =>
    question.from.at === "port" && question.as.as === "client"
      ? { ...question, from: { at: "ssid", ssid: ssid.id, device: point.id } }
      : question;
  return [
    beside(
      {
        id: `on air ${ssid.id}`,
        kind: "laptop",
        words: `The laptop is still on ${ssid.name}, and not on the cable`,
        mend: "Switch the laptop's wireless off and read again.",
        subjects: [{ kind: "ssid", id: ssid.id }],
      },
      { asks: moved },
    ),
  ];
}

/** What can be wrong on the air. */
export function wirelessSuspects(
  index: PlanIndex,
  { segments, hosts }: Sight,
  questions: readonly ProbeQuestion[],
): Suspect[] {
  const isUsed = ({ id, segment }: Ssid) =>
    segments.has(segment) ||
    [...(index.groups("hostsBySsid").get(id) ?? [])].some((host) => hosts.has(host.id));
  const all = [...index.plan.ssid.values()];
  const hasLaptop = questions.some(({ from, as }) => from.at === "port" && as.as === "client");
  return [
    ...all.filter(isUsed).flatMap((ssid) => ssidSuspects(index, ssid)),
    ...(hasLaptop ? all.flatMap((ssid) => stillOnAir(index, ssid)) : []),
  ];
}
