import { byNaturalText, equal } from "../../kernel";
import {
  nameOf,
  type Host,
  type Link,
  type PlanIndex,
  type Port,
  type ProbePlace,
  type ProbeQuestion,
} from "../../plan";
import { capital } from "../../repairs";
import { TREE } from "../../spanning-tree";
import { trunksInSight, type Sight } from "../sight";
import { beside, edited, type Suspect } from "../suspect";

const isFree = (index: PlanIndex, { id }: Port): boolean =>
  index.linkAt(id) === undefined && !index.groups("hostsByPort").has(id);

/** The ports beside one in their row, whose cable is easily put in the other. */
function neighbours(index: PlanIndex, { id, device }: Port): Port[] {
  const row = index.portsOf(device);
  const at = row.findIndex((port) => port.id === id);
  return [row[at - 1], row[at + 1]].flatMap((port) => port ?? []);
}

const subjectsOf = (link: Link, ends: readonly Port[]): Suspect["subjects"] => [
  { kind: "link", id: link.id },
  ...ends.map(({ id }) => ({ kind: "port" as const, id })),
  ...ends.map(({ device }) => ({ kind: "device" as const, id: device })),
];

function linkSuspects(index: PlanIndex, link: Link, { way }: Sight): Suspect[] {
  const ends = [link.a, link.b].flatMap((id) => index.plan.port.get(id) ?? []);
  const subjects = subjectsOf(link, ends);
  const out = cableOut(index, link.id);
  const moved = ends
    .filter(({ id }) => way.has(id))
    .flatMap((port) =>
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
  return [...(out === null ? [] : [out]), ...moved];
}

/** Whether two ports are set alike for who is plugged in. */
const isAlike = (a: Port, b: Port): boolean =>
  equal(
    [a.enabled, a.pvid, a.untagged, a.tagged, a.admit, a.guards],
    [b.enabled, b.pvid, b.untagged, b.tagged, b.admit, b.guards],
  );

/** With as many others that are plugged in nearby its cable could be swapped. */
const MOST_NEAR = 60;

/** A device with the port that it belongs in. */
interface Plugged {
  readonly host: Host;
  readonly port: Port;
}
const pluggedInto = (to: string) => ({ attachment: { at: "port" as const, port: to } });

/** What a cable is about that is in another port than its own. */
const aboutPorts = ({ host, port }: Plugged, other: Port) => ({
  kind: "wrongPort" as const,
  subjects: [
    { kind: "host" as const, id: host.id },
    { kind: "port" as const, id: port.id },
    { kind: "port" as const, id: other.id },
  ],
  seenAt: [port.id, other.id].map((id) => ({ on: "cable" as const, port: id })),
});

/** Its cable is in the port beside, or in one that is set otherwise: of those that are set alike in one. */
function movedSuspects(index: PlanIndex, plugged: Plugged): Suspect[] {
  const { host, port } = plugged;
  const beside = new Set(neighbours(index, port).map(({ id }) => id));
  const right = nameOf(index, "port", port.id);
  return index
    .portsOf(port.device)
    .filter((other) => other.id !== port.id && isFree(index, other) && !isAlike(other, port))
    .filter((other, at, all) => beside.has(other.id) || all.findIndex((port) => isAlike(port, other)) === at)
    .map((other) =>
      edited(
        {
          ...aboutPorts(plugged, other),
          id: `moved ${host.id} ${other.id}`,
          words: `${host.name} is plugged into ${nameOf(index, "port", other.id)}, not ${right}`,
          mend: `Plug ${host.name} into ${right}.`,
        },
        (edits) => edits.patch("host", host.id, pluggedInto(other.id)),
      ),
    );
}

/** Others that are plugged in on the same device or in the same place, where ports are set otherwise. */
function nearby(index: PlanIndex, { host, port }: Plugged): Plugged[] {
  const place = index.plan.device.get(port.device)?.place ?? "";
  const others = [...index.plan.host.values()].flatMap((other): Plugged[] => {
    if (other.attachment.at !== "port" || other.id === host.id) return [];
    const at = index.plan.port.get(other.attachment.port);
    const device = index.plan.device.get(at?.device ?? "");
    const isNear = device?.id === port.device || (place !== "" && device?.place === place);
    // In a port that is set alike it is as right as in its own.
    return at === undefined || !isNear || isAlike(at, port) ? [] : [{ host: other, port: at }];
  });
  const isHere = (plugged: Plugged) => plugged.port.device === port.device;
  return [...others.filter(isHere), ...others.filter((plugged) => !isHere(plugged))].slice(0, MOST_NEAR);
}

function swappedSuspects(index: PlanIndex, plugged: Plugged): Suspect[] {
  const { host, port } = plugged;
  const right = nameOf(index, "port", port.id);
  return nearby(index, plugged).map(({ host: other, port: at }) => {
    const about = aboutPorts(plugged, at);
    return edited(
      {
        ...about,
        id: `swapped ${[host.id, other.id].sort().join(" ")}`,
        words: `The cables of ${[host.name, other.name].sort(byNaturalText).join(" and ")} are swapped`,
        mend: `Plug ${host.name} into ${right} and ${other.name} into ${nameOf(index, "port", at.id)}.`,
        subjects: [...about.subjects, { kind: "host", id: other.id }],
      },
      (edits) => {
        edits.patch("host", host.id, pluggedInto(at.id));
        edits.patch("host", other.id, pluggedInto(port.id));
      },
    );
  });
}

/** An end device whose cable is in another port than its own. */
function hostSuspects(index: PlanIndex, host: Host): Suspect[] {
  const port = host.attachment.at === "port" ? index.plan.port.get(host.attachment.port) : undefined;
  if (port === undefined) return [];
  const plugged = { host, port };
  return [...movedSuspects(index, plugged), ...swappedSuspects(index, plugged), goneSuspect(index, host)];
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

/** Whether a port stands by: then the loss of a cable elsewhere can lead what was tried another way. */
const hasSpareWays = (index: PlanIndex): boolean =>
  index
    .derived(TREE)
    .named.some(({ tree }) =>
      [...tree.ports.values()].some(({ role }) => role === "alternate" || role === "backup"),
    );

/** Cables whose loss could make a difference to what was tried, by their ids. */
export function linksInSight(index: PlanIndex, sight: Sight): ReadonlySet<string> {
  const isSpare = hasSpareWays(index);
  const ports = [...trunksInSight(index, sight), ...sight.ports].filter((id) => isSpare || sight.way.has(id));
  const links = new Set([...ports, ...sight.ports].flatMap((id) => index.linkAt(id)?.id ?? []));
  for (const { id, a, b } of index.plan.link.values())
    if ([a, b].every((end) => sight.devices.has(index.plan.port.get(end)?.device ?? ""))) links.add(id);
  return links;
}

/** A cable that carries nothing; null for none of the plan's. */
export function cableOut(index: PlanIndex, id: string): Suspect | null {
  const link = index.plan.link.get(id);
  if (link === undefined) return null;
  const name = nameOf(index, "link", link.id);
  const ends = [link.a, link.b].flatMap((end) => index.plan.port.get(end) ?? []);
  const fibre = link.medium === "fibre" ? ", or one of its strands is dead" : "";
  return edited(
    {
      id: `out ${link.id}`,
      kind: "cable",
      words: `${capital(name)} is out or broken${fibre}`,
      mend: `Put ${name} in, or replace it.`,
      subjects: subjectsOf(link, ends),
      seenAt: ends.map((end) => ({ on: "cable" as const, port: end.id })),
    },
    (edits) => edits.remove("link", link.id),
  );
}

/** What can be plugged in wrong. */
export function cableSuspects(
  index: PlanIndex,
  sight: Sight,
  questions: readonly ProbeQuestion[],
): Suspect[] {
  const links = linksInSight(index, sight);
  const hosts = [...sight.hosts].flatMap((id) => index.plan.host.get(id) ?? []);
  const suspects = [
    ...[...links].flatMap((id) => {
      const link = index.plan.link.get(id);
      return link === undefined ? [] : linkSuspects(index, link, sight);
    }),
    ...hosts.flatMap((host) =>
      host.attachment.at === "port" ? hostSuspects(index, host) : [goneSuspect(index, host)],
    ),
    ...labelSuspects(index, questions),
  ];
  return [...new Map(suspects.map((suspect) => [suspect.id, suspect])).values()];
}
