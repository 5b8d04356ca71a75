import { byText, DisjointSet } from "../../kernel";
import { nameOf, type Link, type Optic, type PlanIndex, type Port } from "../../plan";
import {
  CABLE_WORDS,
  cablesFor,
  fibreOf,
  LOADS,
  misfit,
  opticsFor,
  portSpeed,
  reachOf,
  speedText,
} from "../../cabling";
import { mediumBetween, setCable, setMedium, setOptic } from "../../planners";
import { check, localCheck, type Found } from "../check";
import { type Repair, counted } from "../../repairs";
import { linksTouched } from "../touched";

const endsOf = ({ plan }: PlanIndex, link: Link): readonly [Port, Port] | null => {
  const [a, b] = [plan.port.get(link.a), plan.port.get(link.b)];
  return a === undefined || b === undefined ? null : [a, b];
};
const subjectsOf = (link: Link) => [
  { kind: "link" as const, id: link.id },
  { kind: "port" as const, id: link.a },
  { kind: "port" as const, id: link.b },
];
const capital = (text: string): string => `${text.slice(0, 1).toUpperCase()}${text.slice(1)}`;
const metres = (cm: number): string => `${cm / 100} m`;

interface OfLink {
  readonly link: string;
}
const optic = (link: string, port: Port, what: Optic, words: string): Repair => ({
  label: words,
  planner: "set-optic",
  args: { link, port: port.id, optic: what },
  edit: (edits) => setOptic({ edits }, port.id, what),
});

/**
 * Optics that go into both ports and light the fibre of the cable; both kinds of fibre when it is not known.
 */
const commonOptics = (link: Link, [a, b]: readonly [Port, Port]): Optic[] => {
  const wanted = fibreOf(link.cable);
  const suits = (optic: Optic) =>
    optic !== "none" &&
    optic !== "direct attach" &&
    (wanted === null ? /-S|-L/.test(optic) : /-S/.test(optic) === (wanted === "multimode")) &&
    !optic.endsWith("-T");
  const common = opticsFor(a).filter((optic) => suits(optic) && opticsFor(b).includes(optic));
  const speed = (optic: Optic) => Number.parseInt(optic, 10);
  const fastest = Math.max(0, ...common.map(speed));
  return common.filter((optic) => speed(optic) === fastest && !optic.endsWith("ER"));
};

const bothOptics = (index: PlanIndex, link: Link): Repair[] => {
  const ends = endsOf(index, link);
  return ends === null
    ? []
    : commonOptics(link, ends).map((what): Repair => ({
        label: `Put ${what} into both ports`,
        planner: "set-optics",
        args: { link: link.id, optic: what },
        edit: (edits) =>
          ends.map((port) => setOptic({ edits }, port.id, what)).find((refusal) => refusal !== null) ?? null,
      }));
};

export const cableMisfit = localCheck<OfLink, "link">({
  code: "cable-misfit",
  severity: "stop",
  family: "hardware",
  title: "A cable, its ports and its optics don't fit together",
  why:
    "The link stays dark: a copper plug does not go into an optic's cage, a multimode optic " +
    "does not light a single-mode fibre, and two different optics do not understand each other.",
  reads: ["link", "port"],
  of: "link",
  touched: linksTouched,
  findAt: (index, link): Found<OfLink>[] => {
    const ends = endsOf(index, link);
    return ends === null || misfit(link, ...ends) === null
      ? []
      : [{ subjects: subjectsOf(link), data: { link: link.id } }];
  },
  describe: ({ link }, index) => {
    const entity = index.plan.link.get(link);
    const ends = entity === undefined ? null : endsOf(index, entity);
    return entity === undefined || ends === null
      ? ""
      : `${capital(nameOf(index, "link", link))} ${misfit(entity, ...ends) ?? ""}.`;
  },
  repairs: ({ link }, index) => {
    const entity = index.plan.link.get(link);
    const ends = entity === undefined ? null : endsOf(index, entity);
    if (entity === undefined || ends === null) return [];
    const [a, b] = ends;
    const medium = mediumBetween(a, b);
    const asMedium: Repair[] =
      medium !== entity.medium &&
      misfit(
        { ...entity, medium, cable: cablesFor(medium).includes(entity.cable) ? entity.cable : "unknown" },
        a,
        b,
      ) === null
        ? [
            {
              label: `Make it a ${medium === "directAttach" ? "direct-attach" : medium} cable`,
              planner: "set-medium",
              args: { link, medium },
              edit: (edits) => setMedium({ edits }, link, medium),
            },
          ]
        : [];
    const likeTheOther =
      a.optic !== b.optic && a.optic !== "none" && b.optic !== "none"
        ? [
            optic(link, b, a.optic, `Put ${a.optic} into ${nameOf(index, "port", b.id)} too`),
            optic(link, a, b.optic, `Put ${b.optic} into ${nameOf(index, "port", a.id)} too`),
          ].filter(
            (_, i) =>
              misfit(
                entity,
                { ...a, optic: i === 0 ? a.optic : b.optic },
                { ...b, optic: i === 0 ? a.optic : b.optic },
              ) === null && opticsFor(i === 0 ? b : a).includes(i === 0 ? a.optic : b.optic),
          )
        : [];
    const lit =
      entity.medium === "fibre"
        ? bothOptics(index, entity).filter((repair) => {
            const what = (repair.args as { optic: Optic }).optic;
            return misfit(entity, { ...a, optic: what }, { ...b, optic: what }) === null;
          })
        : [];
    return [...asMedium, ...likeTheOther, ...lit].slice(0, 3);
  },
});

export const cableTooLong = localCheck<OfLink, "link">({
  code: "cable-too-long",
  severity: "stop",
  family: "hardware",
  title: "A cable is longer than it may be at its speed",
  why:
    "Beyond the limit frames are lost or the link drops to a lower " +
    "speed, at first only now and then: the worst kind of fault to find.",
  reads: ["link", "port"],
  of: "link",
  touched: linksTouched,
  findAt: (index, link): Found<OfLink>[] => {
    const ends = endsOf(index, link);
    if (ends === null || misfit(link, ...ends) !== null) return [];
    const reach = reachOf(link, ...ends);
    return reach === null || (reach > 0 && (link.lengthCm ?? 0) <= reach * 100)
      ? []
      : [{ subjects: subjectsOf(link), data: { link: link.id } }];
  },
  describe: ({ link }, index) => {
    const entity = index.plan.link.get(link);
    const ends = entity === undefined ? null : endsOf(index, entity);
    if (entity === undefined || ends === null) return "";
    const reach = reachOf(entity, ...ends) ?? 0;
    const speed = speedText(Math.min(...ends.map(portSpeed)));
    const unnamed = entity.medium === "copper" ? "copper" : "it";
    const what = entity.cable === "unknown" ? unnamed : CABLE_WORDS[entity.cable];
    return reach === 0
      ? `${capital(nameOf(index, "link", link))}: ${what} does not carry ${speed}.`
      : `${capital(nameOf(index, "link", link))} is ${metres(entity.lengthCm ?? 0)} ` +
          `long; ${what} carries ${speed} over ${reach} m at most.`;
  },
  repairs: ({ link }, index) => {
    const entity = index.plan.link.get(link);
    const ends = entity === undefined ? null : endsOf(index, entity);
    if (entity === undefined || ends === null) return [];
    const better = cablesFor(entity.medium).filter(
      (cable) =>
        cable !== "unknown" &&
        cable !== "cat8" &&
        (reachOf({ ...entity, cable }, ...ends) ?? 0) * 100 >= (entity.lengthCm ?? 1) &&
        misfit({ ...entity, cable }, ...ends) === null,
    );
    return better.slice(0, 2).map((cable): Repair => ({
      label: `Use ${CABLE_WORDS[cable]}`,
      planner: "set-cable",
      args: { link, cable },
      edit: (edits) => setCable({ edits }, link, cable),
    }));
  },
});

export const speedMismatch = localCheck<OfLink, "link">({
  code: "fibre-speeds-differ",
  severity: "warn",
  family: "hardware",
  title: "The two ends of a fibre run at different speeds",
  why: "Copper ports agree on a speed; optics do not. A 10 Gbit/s optic and a 1 Gbit/s one stay dark.",
  reads: ["link", "port"],
  of: "link",
  touched: linksTouched,
  findAt: (index, link): Found<OfLink>[] => {
    const ends = link.medium === "copper" ? null : endsOf(index, link);
    if (
      ends === null ||
      (ends[0].optic !== "none" && ends[1].optic !== "none") ||
      portSpeed(ends[0]) === portSpeed(ends[1])
    )
      return [];
    return [{ subjects: subjectsOf(link), data: { link: link.id } }];
  },
  describe: ({ link }, index) => {
    const entity = index.plan.link.get(link);
    const ends = entity === undefined ? null : endsOf(index, entity);
    return ends === null
      ? ""
      : ends
          .map((port) => `${nameOf(index, "port", port.id)} runs at ${speedText(portSpeed(port))}`)
          .join(" and ") +
          ": " +
          "over fibre they don't agree on one speed by themselves.";
  },
  repairs: ({ link }, index) => {
    const entity = index.plan.link.get(link);
    return entity === undefined ? [] : bothOptics(index, entity).slice(0, 2);
  },
});

interface Between extends OfLink {
  readonly buildings: readonly [string, string];
}

export const copperBetweenBuildings = localCheck<Between, "link">({
  code: "copper-between-buildings",
  severity: "warn",
  family: "hardware",
  title: "A copper cable joins two buildings or two earthing systems",
  why:
    "Between two earths a current can flow along the cable, and a stroke " +
    "of lightning finds its way in. Fibre carries neither; otherwise " +
    "bonding and surge protection by the local code and licensed people.",
  reads: ["link", "port", "device", "room"],
  of: "link",
  touched: (index, change) =>
    change.kind === "device" &&
    change.before !== null &&
    change.after !== null &&
    change.before.place === change.after.place
      ? []
      : linksTouched(index, change),
  findAt: (index, link): Found<Between>[] => {
    if (link.medium !== "copper") return [];
    const buildings = [link.a, link.b].map(
      (port) =>
        index.roomAt(index.plan.device.get(index.plan.port.get(port)?.device ?? "")?.place ?? "")?.building,
    );
    const [a, b] = buildings;
    return a === undefined || b === undefined || a === b
      ? []
      : [{ subjects: subjectsOf(link), data: { link: link.id, buildings: [a, b] } }];
  },
  describe: ({ link, buildings }, index) =>
    `${capital(nameOf(index, "link", link))} is copper and leads from ` +
    `${buildings.map((building) => building || "the main building").join(" to ")}: two earths.`,
  repairs: () => [],
});

interface Closing extends OfLink {
  readonly device: string;
}

export const loopThroughUnmanaged = check<Closing>({
  code: "loop-through-unmanaged",
  severity: "stop",
  family: "hardware",
  title: "Cables form a loop through gear that knows no tree protocol",
  why:
    "A broadcast goes round for ever and within seconds nothing " +
    "works any more. Unmanaged gear can't block a port of its own.",
  reads: ["link", "port", "device"],
  find: (index): Found<Closing>[] => {
    const { plan } = index;
    const numbers = new Map([...plan.device.keys()].map((id, i) => [id, i]));
    const plain = new Set(
      [...plan.device.values()].filter((device) => device.bridging === "plain").map((device) => device.id),
    );
    if (plain.size === 0) return [];
    const joined = new DisjointSet(numbers.size);
    const found: Found<Closing>[] = [];
    for (const link of [...plan.link.values()].sort((a, b) => byText(a.id, b.id))) {
      const ends = endsOf(index, link);
      if (ends === null || ends.some((port) => !port.enabled)) continue;
      const [a, b] = ends;
      const through = [a.device, b.device].find((device) => plain.has(device));
      const bridges = ends.every((port) => plan.device.get(port.device)?.bridging !== "none");
      const [x, y] = [numbers.get(a.device), numbers.get(b.device)];
      if (through === undefined || !bridges || x === undefined || y === undefined) continue;
      if (joined.rootOf(x) === joined.rootOf(y))
        found.push({ subjects: subjectsOf(link), data: { link: link.id, device: through } });
      else joined.join(x, y);
    }
    return found;
  },
  describe: ({ link, device }, index) =>
    `${capital(nameOf(index, "link", link))} closes a loop through ` +
    `${nameOf(index, "device", device)}, which can't block it.`,
  repairs: ({ link }, index) => [
    {
      label: `Take ${nameOf(index, "link", link)} out`,
      planner: "remove-link",
      args: { link },
      edit: (edits) => edits.remove("link", link),
    },
  ],
});

interface Crowded extends OfLink {
  readonly kbps: number;
  readonly hosts: number;
  readonly mbps: number;
}

export const uplinkOversubscribed = check<Crowded>({
  code: "uplink-oversubscribed",
  severity: "warn",
  family: "hardware",
  title: "What hangs behind an uplink can want more than it carries",
  why:
    "At the busy hour calls break up and pictures freeze. The sum is that of typical " +
    "bandwidths: everything busy at once is rare, but this is where it shows first.",
  reads: LOADS.reads,
  find: (index): Found<Crowded>[] =>
    index
      .derived(LOADS)
      .filter((load) => load.kbps > load.mbps * 1000)
      .flatMap((load) => {
        const link = index.plan.link.get(load.link);
        return link === undefined
          ? []
          : [
              {
                subjects: subjectsOf(link),
                data: { link: load.link, kbps: load.kbps, hosts: load.hosts, mbps: load.mbps },
              },
            ];
      }),
  describe: ({ link, kbps, hosts, mbps }, index) =>
    `${capital(nameOf(index, "link", link))} carries ${speedText(mbps)}; ` +
    `the ${counted(hosts, "device", "devices")} behind it come to ` +
    `${speedText(Math.round(kbps / 100) / 10)} when all are busy.`,
  repairs: () => [],
});
