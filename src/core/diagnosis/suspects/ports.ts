import { must } from "../../kernel";
import { nameOf, vid as vidOf, type PlanIndex, type Port, type Vid } from "../../plan";
import { trunksInSight, vidWords, type Sight } from "../sight";
import { edited, type Suspect } from "../suspect";
import { cableOut, linksInSight } from "./cables";
import type { SuspectKind } from "../kinds";

type About = Pick<Suspect, "id" | "words" | "mend"> & { readonly kind: SuspectKind };

const onPort = (port: Port, about: About, patch: (port: Port) => Partial<Port>): Suspect =>
  edited(
    {
      ...about,
      subjects: [{ kind: "port", id: port.id }],
      seenAt: [{ on: "device", device: port.device }],
    },
    (edits) => edits.patch("port", port.id, patch(edits.need("port", port.id))),
  );

const less = (vids: readonly Vid[], vid: number | null): Vid[] => vids.filter((carried) => carried !== vid);
const without = ({ untagged, tagged, pvid }: Port, vid: number): Partial<Port> => ({
  untagged: less(untagged, vid),
  tagged: less(tagged, vid),
  pvid: pvid === vid ? null : pvid,
});

/** VLANs that gear of the port's domain knows. */
const known = (index: PlanIndex, { device }: Port): Vid[] => {
  const domain = index.plan.device.get(device)?.domain ?? null;
  return [...index.plan.vlan.values()].flatMap((vlan) => (vlan.domain === domain ? [vlan.vid] : []));
};

/** Another VLAN comes in untagged; an end device's tagged ones, a phone's for one, stay. */
const untaggedIn = (port: Port, vid: Vid): Partial<Port> => ({
  pvid: vid,
  untagged: [vid],
  tagged: less(port.tagged, vid),
  admit: port.admit === "tagged" ? "all" : port.admit,
});

const how = ({ tagged }: Port, vid: Vid): string => (tagged.includes(vid) ? "tagged" : "untagged");

/** Untagged frames join another VLAN at a port than they are to, or one where none is meant to come in. */
function nativeSuspect(index: PlanIndex, port: Port, vid: Vid): Suspect {
  const { id, pvid } = port;
  const name = nameOf(index, "port", id);
  const wrong = vidWords(index, id, vid);
  return onPort(
    port,
    {
      id: `native ${id} ${vid}`,
      kind: "untagged",
      words:
        pvid === null
          ? `${name} is untagged in ${wrong}, where nothing is to be untagged`
          : `${name} is untagged in ${wrong}, not in ${vidWords(index, id, pvid)}`,
      mend: `Set the untagged VLAN and the PVID of ${name} to ${pvid ?? "none"}, and save.`,
    },
    (now) => untaggedIn(now, vid),
  );
}

function trunkSuspects(index: PlanIndex, port: Port, { vids, way }: Sight): Suspect[] {
  const name = nameOf(index, "port", port.id);
  const own = new Set<number>([...port.untagged, ...port.tagged]);
  const inSight = known(index, port).filter((vid) => vids.has(vid));
  const missing = inSight
    .filter((vid) => own.has(vid))
    .map((vid) =>
      onPort(
        port,
        {
          id: `without ${port.id} ${vid}`,
          kind: "vlanMissing",
          words: `${vidWords(index, port.id, vid)} is missing at ${name}`,
          mend: `Make ${name} a member of VLAN ${vid}, ${how(port, vid)}, and save.`,
        },
        (now) => without(now, vid),
      ),
    );
  const extra = inSight
    .filter((vid) => !own.has(vid))
    .map((vid) =>
      onPort(
        port,
        {
          id: `with ${port.id} ${vid}`,
          kind: "vlanExtra",
          words: `${name} carries ${vidWords(index, port.id, vid)}, which it is not to`,
          mend: `Take VLAN ${vid} off ${name}, and save.`,
        },
        (now) => ({ tagged: [...less(now.tagged, vid), vid] }),
      ),
    );
  const native = less(inSight, port.pvid).map((vid) => nativeSuspect(index, port, vid));
  // Which other VLAN takes the place of one in sight makes no difference to what was tried.
  const other = port.pvid !== null && vids.has(port.pvid) ? strangers(index, port) : [];
  return [...extra, ...(way.has(port.id) ? [...missing, ...native, ...other] : native)];
}

/** A trunk whose tagged frames are not taken, or that was set as an access port. */
function taggingSuspects(index: PlanIndex, port: Port): Suspect[] {
  if (port.tagged.length === 0) return [];
  const name = nameOf(index, "port", port.id);
  const first = port.pvid ?? must(port.tagged[0], "a tagged VLAN");
  return [
    onPort(
      port,
      {
        id: `admits ${port.id}`,
        kind: "tagging",
        words: `${name} takes untagged frames only`,
        mend: `Let ${name} admit tagged frames, too, and save.`,
      },
      () => ({ admit: "untagged" }),
    ),
    onPort(
      port,
      {
        id: `access ${port.id}`,
        kind: "tagging",
        words: `${name} is an access port in ${vidWords(index, port.id, first)}: nothing is tagged on it`,
        mend: `Set ${name} as a trunk with VLANs ${port.tagged.join(", ")} tagged, and save.`,
      },
      () => ({ pvid: first, untagged: [first], tagged: [], admit: "all" }),
    ),
  ];
}

/** The VLAN of ports that nobody has set yet (IEEE 802.1Q table 9-2, default PVID). */
const FIRST_VID = must(vidOf(1), "VLAN 1");

/** A port that is still in VLAN 1 where that is none of the site's; or in some VLAN that nobody knows here. */
function strangers(index: PlanIndex, port: Port): Suspect[] {
  const own = new Set<number>(known(index, port));
  const unknown = MOST_VIDS.find((vid) => !own.has(vid) && vid !== FIRST_VID);
  const nobodys = unknown === undefined ? null : vidOf(unknown);
  return [
    ...(own.has(FIRST_VID) ? [] : [nativeSuspect(index, port, FIRST_VID)]),
    ...(nobodys === null
      ? []
      : [
          {
            ...nativeSuspect(index, port, nobodys),
            id: `stranger ${port.id}`,
            words: `${nameOf(index, "port", port.id)} is in a VLAN that nothing else here knows`,
            isVague: true,
          },
        ]),
  ];
}
/** Numbers that VLANs can have (IEEE 802.1Q table 9-2), the highest first: those are the last to be used. */
const MOST_VIDS: readonly number[] = Array.from({ length: 4094 }, (_, at) => 4094 - at);

/** What an end device's port can be set to otherwise. */
function accessSuspects(index: PlanIndex, port: Port): Suspect[] {
  const name = nameOf(index, "port", port.id);
  const { pvid } = port;
  if (pvid === null) return [];
  const mend = `Set the untagged VLAN and the PVID of ${name} to ${pvid}, and save.`;
  return [
    ...less(known(index, port), pvid).map((vid) => nativeSuspect(index, port, vid)),
    ...strangers(index, port),
    onPort(port, { id: `none ${port.id}`, kind: "noVlan", words: `${name} is in no VLAN`, mend }, (now) => ({
      pvid: null,
      untagged: [],
      tagged: now.tagged,
    })),
    ...port.tagged.map((vid) =>
      onPort(
        port,
        {
          id: `without ${port.id} ${vid}`,
          kind: "vlanMissing",
          words: `${vidWords(index, port.id, vid)} is missing at ${name}`,
          mend: `Make ${name} a tagged member of VLAN ${vid}, and save.`,
        },
        (now) => without(now, vid),
      ),
    ),
    onPort(
      port,
      {
        id: `tags ${port.id}`,
        kind: "tagging",
        words: `${name} is tagged in ${vidWords(index, port.id, pvid)}, not untagged`,
        mend,
      },
      (now) => ({ pvid: null, untagged: [], tagged: [...now.tagged, pvid], admit: "tagged" }),
    ),
  ];
}

/** To what is tried a port between gear that is off is a cable that is out; null for a port without one. */
export const likeCableOut = (index: PlanIndex, { id, lag }: Port): Suspect | null =>
  lag === null ? cableOut(index, index.linkAt(id)?.id ?? "") : null;

function switchedSuspect(index: PlanIndex, port: Port): Suspect {
  const name = nameOf(index, "port", port.id);
  const [kind, words, mend] = port.enabled
    ? (["portOff", `${name} is off`, `Switch ${name} on, and save.`] as const)
    : (["portOn", `${name} is on`, `Switch ${name} off, and save.`] as const);
  const suspect = onPort(port, { id: `switched ${port.id}`, kind, words, mend }, ({ enabled }) => ({
    enabled: !enabled,
  }));
  return { ...suspect, triesLike: port.enabled ? likeCableOut(index, port) : null };
}

/** What can be set wrong at ports. */
export function portSuspects(index: PlanIndex, sight: Sight): Suspect[] {
  const portAt = (id: string) => must(index.plan.port.get(id), "a port of the plan");
  const isVlanAware = ({ device }: Port) => index.plan.device.get(device)?.bridging === "vlan";
  const trunks = trunksInSight(index, sight).map(portAt);
  const ways = linksInSight(index, sight);
  const between = new Set(trunks.map(({ id }) => id));
  const ends = [...sight.ports].map(portAt).filter(({ id }) => !between.has(id));
  return [
    ...trunks
      .filter(isVlanAware)
      .flatMap((port) => [
        ...trunkSuspects(index, port, sight),
        ...(sight.way.has(port.id) ? taggingSuspects(index, port) : []),
      ]),
    ...ends
      .filter((port) => isVlanAware(port) && index.groups("interfacesByPort").get(port.id) === undefined)
      .flatMap((port) => accessSuspects(index, port)),
    ...[...trunks, ...ends]
      .filter(({ id }) => ways.has(index.linkAt(id)?.id ?? "") || index.linkAt(id) === undefined)
      .map((port) => switchedSuspect(index, port)),
  ];
}
