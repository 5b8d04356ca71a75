import { byNaturalText } from "../../kernel";
import {
  nameOf,
  type Host,
  type Link,
  type PlanIndex,
  type Port,
  type ProbePlace,
  type ProbeQuestion,
} from "../../plan";
import { trunksInSight, type Sight } from "../sight";
import { beside, edited, type Suspect } from "../suspect";

const isFree = (index: PlanIndex, { id }: Port): boolean =>
  index.linkAt(id) === undefined && !index.groups("hostsByPort").has(id);

/** The ports beside one in their row, whose cable is easily put in the other. */
function neighbours(index: PlanIndex, { id, device }: Port): Port[] {
  const row = index.portsOf(device);
  const at = row.findIndex((one) => one.id === id);
  return [row[at - 1], row[at + 1]].flatMap((port) => port ?? []);
}

function linkSuspects(index: PlanIndex, link: Link): Suspect[] {
  const name = nameOf(index, "link", link.id);
  const ends = [link.a, link.b].flatMap((id) => index.plan.port.get(id) ?? []);
  const subjects = [
    { kind: "link" as const, id: link.id },
    ...ends.map(({ id }) => ({ kind: "port" as const, id })),
    ...ends.map(({ device }) => ({ kind: "device" as const, id: device })),
  ];
  const fibre = link.medium === "fibre" ? ", or one of its strands is dead" : "";
  const out = edited(
    {
      id: `out ${link.id}`,
      kind: "cable",
      words: `The cable ${name} is out or broken${fibre}`,
      mend: `Put the cable ${name} in, or replace it.`,
      subjects,
      seenAt: ends.map(({ id }) => ({ on: "cable" as const, port: id })),
    },
    (edits) => edits.remove("link", link.id),
  );
  const moved = ends.flatMap((port) =>
    neighbours(index, port)
      .filter((other) => isFree(index, other))
      .map((other) => {
        const [right, wrong] = [nameOf(index, "port", port.id), nameOf(index, "port", other.id)];
        return edited(
          {
            id: `moved ${link.id} ${other.id}`,
            kind: "wrongPort",
            words: `The cable for ${right} is in ${wrong}`,
            mend: `Put the cable that is in ${wrong} into ${right}.`,
            subjects: [...subjects, { kind: "port", id: other.id }],
            seenAt: [port.id, other.id].map((id) => ({ on: "cable" as const, port: id })),
          },
          (edits) => edits.patch("link", link.id, link.a === port.id ? { a: other.id } : { b: other.id }),
        );
      }),
  );
  return [out, ...moved];
}

/** An end device whose cable is in another port of its device. */
function hostSuspects(index: PlanIndex, host: Host): Suspect[] {
  if (host.attachment.at !== "port") return [];
  const port = index.plan.port.get(host.attachment.port);
  if (port === undefined) return [];
  const place = index.plan.device.get(port.device)?.place;
  const own = index.portsOf(port.device).filter(({ id }) => id !== port.id);
  const beside = new Set(neighbours(index, port).map(({ id }) => id));
  const patch = (to: string) => ({ attachment: { at: "port" as const, port: to } });
  const told = (other: Port) => ({
    subjects: [
      { kind: "host" as const, id: host.id },
      { kind: "port" as const, id: port.id },
      { kind: "port" as const, id: other.id },
    ],
    seenAt: [port.id, other.id].map((id) => ({ on: "cable" as const, port: id })),
  });
  const [name, right] = [host.name, nameOf(index, "port", port.id)];
  const moved = own
    .filter((other) => isFree(index, other) && (beside.has(other.id) || other.pvid !== port.pvid))
    .map((other) =>
      edited(
        {
          id: `moved ${host.id} ${other.id}`,
          kind: "wrongPort",
          words: `${name} is plugged into ${nameOf(index, "port", other.id)}, not ${right}`,
          mend: `Plug ${name} into ${right}.`,
          ...told(other),
        },
        (edits) => edits.patch("host", host.id, patch(other.id)),
      ),
    );
  const near = (other: Host): Port[] => {
    if (other.attachment.at !== "port" || other.id === host.id) return [];
    const at = index.plan.port.get(other.attachment.port);
    const device = index.plan.device.get(at?.device ?? "");
    const isNear = device?.id === port.device || (place !== "" && device?.place === place);
    return at === undefined || !isNear || at.id === port.id ? [] : [at];
  };
  const swapped = [...index.plan.host.values()].flatMap((other) =>
    near(other).map((at) =>
      edited(
        {
          id: `swapped ${[host.id, other.id].sort().join(" ")}`,
          kind: "wrongPort",
          words: `The cables of ${[name, other.name].sort(byNaturalText).join(" and ")} are swapped`,
          mend: `Plug ${name} into ${right} and ${other.name} into ${nameOf(index, "port", at.id)}.`,
          ...told(at),
          subjects: [...told(at).subjects, { kind: "host", id: other.id }],
        },
        (edits) => {
          edits.patch("host", host.id, patch(at.id));
          edits.patch("host", other.id, patch(port.id));
        },
      ),
    ),
  );
  return [...moved, ...swapped, goneSuspect(index, host)];
}

function goneSuspect(index: PlanIndex, host: Host): Suspect {
  const { attachment } = host;
  const port = attachment.at === "port" ? attachment.port : null;
  const at = port === null ? "" : ` at ${nameOf(index, "port", port)}`;
  return edited(
    {
      id: `gone ${host.id}`,
      kind: "hostOff",
      words: `${host.name} is off, or its cable is out`,
      mend: `Look whether ${host.name} has power and a link${at}.`,
      subjects: [
        { kind: "host", id: host.id },
        ...(port === null ? [] : [{ kind: "port" as const, id: port }]),
      ],
      seenAt: port === null ? [] : [{ on: "cable", port }],
    },
    (edits) => edits.patch("host", host.id, { attachment: { at: "unplaced" } }),
  );
}

/** Ports that laptops were plugged into may be others than their labels say. */
function labelSuspects(index: PlanIndex, questions: readonly ProbeQuestion[]): Suspect[] {
  const used = new Set(
    questions.flatMap(({ from }) => (from.at === "port" && from.tag === null ? [from.port] : [])),
  );
  const seen = new Set<string>();
  return [...used].flatMap((id) => {
    const port = index.plan.port.get(id);
    if (port === undefined) return [];
    return index
      .portsOf(port.device)
      .filter((other) => other.id !== id && index.linkAt(other.id) === undefined)
      .flatMap((other) => {
        const key = `label ${[id, other.id].sort().join(" ")}`;
        if (seen.has(key)) return [];
        seen.add(key);
        return [labelSuspect(index, key, [port, other])];
      });
  });
}

function labelSuspect(index: PlanIndex, id: string, [a, b]: readonly [Port, Port]): Suspect {
  const swap = (place: ProbePlace): ProbePlace => {
    if (place.at !== "port") return place;
    if (place.port === a.id) return { ...place, port: b.id };
    return place.port === b.id ? { ...place, port: a.id } : place;
  };
  const [one, two] = [nameOf(index, "port", a.id), nameOf(index, "port", b.id)];
  return beside(
    {
      id,
      kind: "label",
      words: `${one} and ${two} are labelled the wrong way round, or their sockets are`,
      mend: `Follow both cables, and label ${one} and ${two} anew.`,
      subjects: [
        { kind: "port", id: a.id },
        { kind: "port", id: b.id },
      ],
    },
    { asks: (question) => ({ ...question, from: swap(question.from) }) },
  );
}

/** What can be plugged in wrong. */
export function cableSuspects(
  index: PlanIndex,
  sight: Sight,
  questions: readonly ProbeQuestion[],
): Suspect[] {
  const links = new Set(
    [...trunksInSight(index, sight), ...sight.ports].flatMap((id) => index.linkAt(id)?.id ?? []),
  );
  for (const { id, a, b } of index.plan.link.values())
    if ([a, b].every((end) => sight.devices.has(index.plan.port.get(end)?.device ?? ""))) links.add(id);
  const hosts = [...sight.hosts].flatMap((id) => index.plan.host.get(id) ?? []);
  const suspects = [
    ...[...links].flatMap((id) => {
      const link = index.plan.link.get(id);
      return link === undefined ? [] : linkSuspects(index, link);
    }),
    ...hosts.flatMap((host) =>
      host.attachment.at === "port" ? hostSuspects(index, host) : [goneSuspect(index, host)],
    ),
    ...labelSuspects(index, questions),
  ];
  return [...new Map(suspects.map((one) => [one.id, one])).values()];
}
