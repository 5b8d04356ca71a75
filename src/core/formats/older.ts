import {
  BLANK_DEVICE,
  BLANK_FORWARD,
  BLANK_HOST,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_PORT,
  BLANK_ROOM,
  BLANK_SIGN_IN,
  BLANK_SSID,
  BLANK_TREE,
  BLANK_ZONE,
  CONVENTIONS,
  KINDS,
  LIST_NAMES,
  NO_ABILITIES,
  NO_BASELINE,
  NO_GUARDS,
  NO_PROTECTIONS,
  NO_PAPER,
  NO_RADIO_RULES,
  USUAL_ABILITIES,
  USUAL_METRIC,
  usualFilter,
  UUID,
  type Device,
  type Kind,
} from "../plan";

/** The form that plan files and logged changes have now. */
export const VERSION = 19;

type Fields = Record<string, unknown>;
const pick = <T extends object>(from: T, ...names: readonly (keyof T)[]): Fields =>
  Object.fromEntries(names.map((name) => [name, from[name]]));

/** What the entities of versions before lacked, with the value that changes nothing. */
const ADDED: Partial<Record<Kind, Fields>> = {
  site: { radio: NO_RADIO_RULES, baseline: NO_BASELINE, paper: NO_PAPER },
  room: pick(BLANK_ROOM, "building", "beside"),
  device: pick(
    BLANK_DEVICE,
    "abilities",
    "rackUnit",
    "heightUnits",
    "feed",
    "backupFeed",
    "poe",
    "poeOneLostMw",
    "hears",
    "protections",
    "adminSignIn",
    "routes",
    "defaultRoute",
    "bridgeMac",
    "asksFrom",
    "repeatsDiscovery",
    "baseline",
    "serial",
    "hardwareRevision",
    "softwareFound",
    "softwareWanted",
    "registration",
    "licenceUntil",
  ),
  port: pick(BLANK_PORT, "optic", "lag", "treePriority", "treeCost", "voicePolicy"),
  line: pick(
    BLANK_LINE,
    "length4",
    "nextHop4",
    "length6",
    "nextHop6",
    "dns",
    "boxForwards",
    "share",
    "watch",
    "pins",
    "dynamicName",
    "marks",
    "delegated",
  ),
  signIn: pick(
    BLANK_SIGN_IN,
    "serverDownVoice",
    "stage",
    "before",
    "hosts",
    "order",
    "signInWins",
    "byAnswer",
    "accountingPort",
    "changePort",
    "timers",
    "sends",
    "secretPlace",
    "certificateUntil",
  ),
  zone: pick(BLANK_ZONE, "level", "securityLevel"),
  wall: { conduit: null },
  exception: { conduit: null },
  segment: { tunnel: null, trafficClass: "bestEffort" },
  interface: { translates: "asUsual" },
  link: pick(BLANK_LINK, "cable", "panel", "socket"),
  forward: pick(BLANK_FORWARD, "sources", "until"),
  host: pick(BLANK_HOST, "poe", "length4", "gateway4", "length6", "gateway6", "dns", "changesMac"),
  ssid: pick(BLANK_SSID, "moreSegments", "security", "profile", "hidden", "isolation", "bands", "at"),
};
const CONVENTIONS_ADDED = pick(CONVENTIONS, "devicePattern", "cablePattern", "wifiNames");
const LISTS_ADDED = [
  "deviceModels",
  "leaflets",
  "templates",
  "lags",
  "radios",
  "signIns",
  "forwards",
  "expectations",
  "rules",
  "services",
  "conduits",
  "exceptions",
  "wishes",
  "acceptances",
  "windows",
] as const;
/** What nobody said of gear of then, it is not known to have. */
const ABILITIES_ADDED = {
  ...pick(USUAL_ABILITIES, "ownTag", "radios", "fallsBack", "lacks"),
  ...pick(NO_ABILITIES, "ipv6Guards", "sourceChecks", "isolation", "stormLimits"),
};
const GUARDS_ADDED = pick(
  NO_GUARDS,
  "profile",
  "restrictedRole",
  "trustsMarks",
  "raTrust",
  "sourceCheck",
  "isolated",
  "stormPercent",
);

const isFields = (value: unknown): value is Fields =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Sign-in profiles' ids by their names in small letters. */
type Profiles = ReadonlyMap<string, unknown>;
const NO_PROFILES: Profiles = new Map();

const profilesIn = (signIns: readonly unknown[]): Profiles =>
  new Map(
    signIns.flatMap((signIn): [string, unknown][] =>
      isFields(signIn) && typeof signIn.name === "string" ? [[signIn.name.toLowerCase(), signIn.id]] : [],
    ),
  );

/** A port that names its sign-in profile as versions up to 3 did: by the profile's id. */
function withProfileById(port: Fields & { readonly guards: Fields }, profiles: Profiles): Fields {
  const { profile } = port.guards;
  if (typeof profile !== "string" || UUID.test(profile)) return port;
  return { ...port, guards: { ...port.guards, profile: profiles.get(profile.toLowerCase()) ?? null } };
}

/**
 * A port's own name for a profile that the plan does not have, kept in its note where there is room: with ids
 * it could not be said any more.
 */
function withLostProfile(port: unknown, profiles: Profiles): unknown {
  const profile = isFields(port) && isFields(port.guards) ? port.guards.profile : null;
  if (
    !isFields(port) ||
    typeof profile !== "string" ||
    profile === "" ||
    UUID.test(profile) ||
    profiles.has(profile.toLowerCase()) ||
    port.note !== ""
  )
    return port;
  return { ...port, note: `802.1X profile: ${profile}`.slice(0, 120) };
}

/** A line's place in the order, for what versions up to 5 said of its use; it said nothing of percents. */
const PLACES: Readonly<Record<string, { readonly place: number; readonly share: number }>> = {
  main: { place: 0, share: 0 },
  shared: { place: 1, share: 50 },
  standby: { place: 2, share: 0 },
};

function withPlace({ use, ...line }: Fields): Fields {
  return "place" in line ? line : { ...line, ...PLACES[typeof use === "string" ? use : "main"] };
}

/** Routes of versions up to 6 had no metric, and one of them for each subnet. */
const withMetrics = (routes: unknown): unknown =>
  Array.isArray(routes)
    ? routes.map((route: unknown) => (isFields(route) ? { metric: USUAL_METRIC, ...route } : route))
    : routes;

/**
 * How a device filtered that versions up to 6 knew: what routed and was no gateway let everything pass,
 * whatever its settings said.
 */
function withFilter({ kind, filter }: Fields): unknown {
  const usual = usualFilter({ kind: isKindOfDevice(kind) ? kind : "switch" });
  if (!isFields(filter)) return usual;
  if ("logsRefused" in filter) return filter;
  const { logsRefused, hostsOpen } = usual;
  const whole = { ...usual, ...filter, logsRefused, hostsOpen };
  return usual.list === "none" ? { ...whole, list: "none", established: false } : whole;
}
const isKindOfDevice = (kind: unknown): kind is Device["kind"] => kind === "gateway" || kind === "firewall";

/** An entity of any version in the present form: what it lacks is added, what it has stays. */
function upgradedEntity(kind: Kind, entity: unknown, profiles: Profiles = NO_PROFILES): unknown {
  if (!isFields(entity)) return entity;
  const whole: Fields = { ...ADDED[kind], ...entity };
  if (kind === "site" && isFields(whole.conventions))
    return { ...whole, conventions: { ...CONVENTIONS_ADDED, ...whole.conventions } };
  if (kind === "port" && isFields(whole.guards))
    return withProfileById({ ...whole, guards: { ...GUARDS_ADDED, ...whole.guards } }, profiles);
  if (kind === "line") return withPlace(whole);
  if (kind === "host" && isFields(whole.attachment) && whole.attachment.at === "ssid")
    return { ...whole, attachment: { accessPoint: null, ...whole.attachment } };
  if (isFields(whole.abilities)) {
    const abilities = { ...ABILITIES_ADDED, ...whole.abilities };
    return kind === "device" && isFields(whole.tree)
      ? {
          ...whole,
          abilities,
          tree: { ...BLANK_TREE, ...whole.tree },
          protections: { ...NO_PROTECTIONS, ...(isFields(whole.protections) ? whole.protections : {}) },
          routes: withMetrics(whole.routes),
          filter: withFilter(whole),
        }
      : { ...whole, abilities };
  }
  return whole;
}

/** A plan file of an earlier version in the present form; any other value as it is. */
export function upgradedFile(file: unknown): unknown {
  if (
    !isFields(file) ||
    typeof file.version !== "number" ||
    ![1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18].includes(file.version)
  )
    return file;
  const profiles = profilesIn(Array.isArray(file.signIns) ? file.signIns : []);
  const lists = KINDS.flatMap((kind): [string, unknown][] => {
    const name = kind === "site" ? "site" : LIST_NAMES[kind];
    const value = file[name];
    return name in file
      ? [
          [
            name,
            Array.isArray(value)
              ? value.map((entity) =>
                  upgradedEntity(
                    kind,
                    kind === "port" ? withLostProfile(entity, profiles) : entity,
                    profiles,
                  ),
                )
              : upgradedEntity(kind, value),
          ],
        ]
      : [];
  });
  const empty = Object.fromEntries(LISTS_ADDED.map((name) => [name, []]));
  return { ...empty, ...file, ...Object.fromEntries(lists), version: VERSION };
}

const isKind = (value: unknown): value is Kind =>
  typeof value === "string" && (KINDS as readonly string[]).includes(value);

/** Logged changes of any version in the present form. */
export function upgradedChanges(changes: unknown): unknown {
  if (!Array.isArray(changes)) return changes;
  const profiles = profilesIn(
    changes.flatMap((change: unknown) =>
      isFields(change) && change.kind === "signIn" ? [change.before, change.after] : [],
    ),
  );
  return changes.map((change: unknown) => {
    if (!isFields(change) || !isKind(change.kind)) return change;
    return {
      ...change,
      before: upgradedEntity(change.kind, change.before, profiles),
      after: upgradedEntity(change.kind, change.after, profiles),
    };
  });
}

/** Batches that a browser kept, whenever it did, in the present form. */
export const upgradedBatches = (batches: unknown): unknown =>
  Array.isArray(batches)
    ? batches.map((batch: unknown) =>
        isFields(batch) ? { ...batch, changes: upgradedChanges(batch.changes) } : batch,
      )
    : batches;
