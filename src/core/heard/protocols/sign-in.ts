import type { Mac } from "../../address";
import { macOf, type MacNumber, type Octets } from "../octets";
import { addTo, countIn, countsOf, Rows, tagKey, type Budget, type Counts, type Tagged } from "../rows";

type Role = "supplicant" | "authenticator";
type Outcome = "success" | "failure" | "ambiguous" | "none seen";

/** A station that signs in. */
export interface SignInAttempt {
  readonly supplicant: Mac;
  readonly identity: string | null;
  readonly methods: readonly string[];
  /** Ambiguous: two stations answered with the same identifier, and the outcome went to a group. */
  readonly outcome: Outcome;
}
export interface SignInFact extends Tagged {
  readonly frames: Counts;
  readonly senders: Readonly<Record<string, Role>>;
  readonly events: readonly string[];
  readonly attempts: readonly SignInAttempt[];
  readonly outcome: "success" | "failure" | "both" | "none seen";
}

/** Types of frames (IEEE 802.1X table 11-3), codes and methods (RFC 3748 sections 4 and 5). */
const EAP = 0;
const FRAMES: ReadonlyMap<number, string> = new Map([
  [1, "start"],
  [2, "logoff"],
  [3, "key"],
]);
const CODES = ["request", "response", "success", "failure"] as const;
const METHODS: ReadonlyMap<number, string> = new Map([
  [4, "md5"],
  [5, "otp"],
  [6, "gtc"],
  [13, "tls"],
  [21, "ttls"],
  [25, "peap"],
  [26, "mschapv2"],
  [43, "fast"],
  [52, "pwd"],
  [55, "teap"],
]);
const IDENTITY = 1;
/** Identity, notification and refusal are no methods. */
const LEAST_METHOD = 4;
const MOST_EVENTS = 200;

interface Station {
  readonly mac: MacNumber;
  identity: string | null;
  readonly methods: string[];
  /** The identifier of its last response. */
  last: number | null;
  readonly outcomes: Set<Outcome>;
}
interface Place {
  readonly tagged: Tagged;
  readonly frames: Map<string, number>;
  readonly senders: Rows<{ readonly mac: MacNumber; role: Role }>;
  readonly events: string[];
  readonly stations: Rows<Station>;
}

/** What of a message of EAP counts. */
interface Message {
  readonly from: MacNumber;
  readonly to: string;
  readonly code: (typeof CODES)[number];
  readonly id: number;
  readonly type: number;
  readonly body: Octets;
}

const methodName = (type: number): string => METHODS.get(type) ?? `type ${type}`;

function tell({ events }: Place, event: string): void {
  if (events.length < MOST_EVENTS && events.at(-1) !== event) events.push(event);
}

const stationOf = ({ stations }: Place, mac: MacNumber): Station | null =>
  stations.at(mac, () => ({ mac, identity: null, methods: [], last: null, outcomes: new Set() }));

function takeResponse(place: Place, { from, id, type, body }: Message): void {
  const station = stationOf(place, from);
  if (station !== null) station.last = id;
  if (type === IDENTITY) {
    const identity = body.text();
    if (station !== null) station.identity = identity;
    tell(place, `identity ${identity} from ${macOf(from)}`);
  }
  if (type < LEAST_METHOD) return;
  if (station !== null) addTo(station.methods, methodName(type));
  tell(place, `response ${methodName(type)}`);
}

/** Outcomes go to a group: they are for whose last response has the same identifier (RFC 3748 section 4.2). */
function takeOutcome(place: Place, { from, to, id, code }: Message): void {
  tell(place, `${code} from ${macOf(from)} to ${to}`);
  const meant = place.stations.all().filter(({ last }) => last === id);
  const outcome: Outcome = code === "success" ? "success" : "failure";
  for (const { outcomes } of meant) outcomes.add(meant.length > 1 ? "ambiguous" : outcome);
}

function take(place: Place, message: Message): void {
  const { code, type } = message;
  if (code === "response") takeResponse(place, message);
  else if (code !== "request") takeOutcome(place, message);
  else if (type >= LEAST_METHOD) tell(place, `request ${methodName(type)}`);
}

/** The last word counts, unless nobody can say whose it was. */
function outcomeOf({ outcomes }: Station): Outcome {
  if (outcomes.has("ambiguous")) return "ambiguous";
  return [...outcomes].at(-1) ?? "none seen";
}

function placeOutcome({ frames }: Place): SignInFact["outcome"] {
  const [success, failure] = [frames.has("success"), frames.has("failure")];
  if (success && failure) return "both";
  if (success) return "success";
  return failure ? "failure" : "none seen";
}

/** Sign-in at ports (IEEE 802.1X). */
export class SignInHeard {
  readonly #budget: Budget;
  readonly #places: Rows<Place>;

  constructor(budget: Budget) {
    this.#budget = budget;
    this.#places = new Rows(budget);
  }

  add(
    tagged: Tagged,
    { from, to }: { readonly from: MacNumber; readonly to: MacNumber | null },
    body: Octets,
  ): void {
    if (!body.has(0, 4)) return;
    const place = this.#places.at(tagKey(tagged), () => ({
      tagged,
      frames: new Map(),
      senders: new Rows(this.#budget),
      events: [],
      stations: new Rows(this.#budget),
    }));
    if (place === null) return;
    const type = body.u8(1);
    const eap = body.from(4, body.u16(2));
    const code = type === EAP && eap.has(0, 4) ? CODES[eap.u8(0) - 1] : undefined;
    const name = code ?? FRAMES.get(type);
    if (name === undefined) return;
    countIn(place.frames, name);
    const isStation = name === "response" || name === "start" || name === "logoff";
    const role: Role = isStation ? "supplicant" : "authenticator";
    const sender = name === "key" ? null : place.senders.at(from, () => ({ mac: from, role }));
    if (sender !== null) sender.role = role;
    if (name === "start") {
      stationOf(place, from);
      tell(place, `start from ${macOf(from)}`);
    }
    if (code === undefined) return;
    const inner = eap.from(5, eap.u16(2) - 5);
    const all = to === null ? "all" : macOf(to);
    take(place, { from, to: all, code, id: eap.u8(1), type: eap.u8(4), body: inner });
  }

  facts(): readonly SignInFact[] | undefined {
    const places = this.#places.all();
    if (places.length === 0) return undefined;
    return places.map((place) => ({
      ...place.tagged,
      frames: countsOf(place.frames),
      senders: Object.fromEntries(place.senders.all().map(({ mac, role }) => [macOf(mac), role])),
      events: place.events,
      attempts: place.stations.all().map((station) => ({
        supplicant: macOf(station.mac),
        identity: station.identity,
        methods: station.methods,
        outcome: outcomeOf(station),
      })),
      outcome: placeOutcome(place),
    }));
  }
}
