import { byNaturalText } from "../../kernel";
import { BLANK_LINK, isGateway, type Device, type PlanEdits, type Port, type Vid } from "../../plan";
import { domainFor, mediumBetween, placeDevice } from "./add-device";
import { modelsOf, type DeviceModel } from "../../catalogue";
import { nextDeviceName } from "./device-name";
import { fieldsOf } from "../ports/paint-ports";
import type { EditContext, Refusal } from "../planner";

/** What one line asks for: how many of which model, where, and which device they are cabled to. */
export interface StackOrder {
  readonly count: number;
  readonly model: DeviceModel;
  readonly place: string;
  readonly to: Device | null;
}

const MOST = 48;
const words = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9+]+/)
    .filter((word) => word !== "");

/** The model that a description means: all its words are in the model's name, the shortest such name first. */
function modelFor(edits: PlanEdits, text: string): DeviceModel | null {
  const wanted = words(text).map((word) =>
    word.replace(/^(ports?|switch(?:es)?|aps?)$/, (all) => {
      if (all.startsWith("port")) return "port";
      if (all.startsWith("sw")) return "switch";
      return "access";
    }),
  );
  const found = modelsOf(edits.plan).filter((model) => {
    const own = words(`${model.model} ${model.kind === "accessPoint" ? "access point" : model.kind}`);
    return wanted.every((word) => own.some((label) => label === word || label === `${word}s`));
  });
  return (
    [...found].sort((a, b) => a.model.length - b.model.length || byNaturalText(a.model, b.model))[0] ?? null
  );
}

/** "3 × 24-port PoE", "in Cabinet A", "uplinks to Core": the number, what, where and whereto. */
const STACK =
  // eslint-disable-next-line max-len -- one pattern, so that it is tried whole against what would slow it down
  /^\s*(\d{1,3})(?:\s*[×*]\s*|\s*x\s*(?=\d)|\s*x\s+|\s+)(.+?)(?:\s+in\s+(.+?))?(?:\s*,?\s*(?:uplinks?|linked|cabled)\s+to\s+(.+?))?\s*$/i;

/**
 * Reads "3 × 24-port PoE in Cabinet A, uplinks to Core": number, model, place and what they are cabled to;
 * the last two may be left out. A sentence says what can't be read.
 */
export function readStack(
  edits: PlanEdits,
  typed: string,
):
  | { readonly order: StackOrder; readonly refusal: null }
  | { readonly order: null; readonly refusal: string } {
  const refuse = (refusal: string) => ({ order: null, refusal });
  const match = STACK.exec(typed);
  if (match === null)
    return refuse(
      `"${typed.trim()}" can't be read; write it as 3 × 24-port PoE in Cabinet A, uplinks to Core.`,
    );
  const [, number = "", what = "", place = "", target] = match;
  const count = Number(number);
  if (count < 1 || count > MOST)
    return refuse(`${count} is no number of devices to add at once; write 1 to ${MOST}.`);
  const model = modelFor(edits, what.replace(/,$/, ""));
  if (model === null)
    return refuse(
      `No model answers to "${what.trim()}"; choose one of the list, or make one of your own first.`,
    );
  if (place.length > 120) return refuse("A place has at most 120 characters.");
  if (target === undefined) return { order: { count, model, place: place.trim(), to: null }, refusal: null };
  const devices = edits.all("device");
  const named = devices.find((device) => device.name.toLowerCase() === target.toLowerCase());
  const core = /^(the\s+)?(core|gateway)$/i.test(target) ? coreOf(edits) : undefined;
  const to = named ?? core;
  if (to === undefined)
    return refuse(
      `No device is called "${target}"; ${
        devices.length === 0
          ? "add the gateway first"
          : `there are ${devices
              .slice(0, 4)
              .map((device) => device.name)
              .join(", ")}`
      }.`,
    );
  return { order: { count, model, place: place.trim(), to }, refusal: null };
}

/** The switch that stands next to the gateway, else the gateway: where new gear is usually cabled to. */
function coreOf(edits: PlanEdits): Device | undefined {
  const deviceOf = new Map(edits.all("port").map((port) => [port.id, port.device]));
  const gateways = new Set(
    edits
      .all("device")
      .filter(isGateway)
      .map((device) => device.id),
  );
  const beside = edits.all("link").flatMap((link) => {
    const [a, b] = [deviceOf.get(link.a) ?? "", deviceOf.get(link.b) ?? ""];
    if (gateways.has(a)) return [b];
    if (gateways.has(b)) return [a];
    return [];
  });
  const switches = edits
    .all("device")
    .filter((device) => device.kind === "switch")
    .sort((a, b) => byNaturalText(a.name, b.name));
  return (
    switches.find((device) => beside.includes(device.id)) ??
    edits.all("device").find(isGateway) ??
    switches[0]
  );
}

/**
 * Every VLAN with a segment in a domain: what a trunk between switches carries until it is known what is
 * needed behind it.
 */
const vidsIn = (edits: PlanEdits, domain: string | null): Vid[] => {
  const used = new Set(edits.all("segment").flatMap((segment) => segment.vlan ?? []));
  return [
    ...new Set(
      edits
        .all("vlan")
        .filter((vlan) => vlan.domain === domain && used.has(vlan.id))
        .map((vlan) => vlan.vid),
    ),
  ].sort((a, b) => a - b);
};

function freePorts(edits: PlanEdits, device: string): Port[] {
  const used = new Set([
    ...edits.all("link").flatMap((link) => [link.a, link.b]),
    ...edits.all("interface").flatMap((leg) => leg.port ?? []),
    ...edits.all("host").flatMap((host) => (host.attachment.at === "port" ? [host.attachment.port] : [])),
  ]);
  return edits
    .all("port")
    .filter((port) => port.device === device && !used.has(port.id) && port.note === "")
    .sort((a, b) => a.position - b.position);
}

/**
 * The pair of free ports for an uplink: fibre where both ends have it, else copper; the last of the new one,
 * the last free of the other.
 */
function uplinkPair(edits: PlanEdits, device: string, to: string): readonly [Port, Port] | null {
  const [own, far] = [freePorts(edits, device), freePorts(edits, to)];
  for (const medium of ["fibre", "copper"] as const) {
    const [a, b] = [
      own.filter((port) => port.medium === medium).at(-1),
      far.filter((port) => port.medium === medium).at(-1),
    ];
    if (a !== undefined && b !== undefined) return [a, b];
  }
  return null;
}

/**
 * Adds the devices, cables each to its uplink, and paints both ends as a trunk. Nothing is added when there
 * is no port left for one.
 */
export function addStack({ edits, ids }: EditContext, typed: string): Refusal {
  const read = readStack(edits, typed);
  if (read.refusal !== null) return read.refusal;
  const { count, model, place, to } = read.order;
  const domain = to?.domain ?? domainFor(edits, ids);
  for (let i = 0; i < count; i += 1) {
    const name = nextDeviceName(edits, model.kind, place);
    const { device } = placeDevice(edits, ids, model, { name, place, domain });
    if (to === null) continue;
    const pair = uplinkPair(edits, device.id, to.id);
    if (pair === null)
      return (
        `${to.name} has no port left for number ${i + 1} of ` +
        `${count}; add fewer, or cable them to another device.`
      );
    const [a, b] = pair;
    edits.put("link", { ...BLANK_LINK, id: ids(), a: a.id, b: b.id, medium: mediumBetween(a, b) });
    const vids = vidsIn(edits, domain);
    const bridges = [device, to].every((device) => device.bridging === "vlan");
    if (bridges && vids.length > 0)
      for (const port of [a, b])
        edits.patch("port", port.id, fieldsOf({ role: "trunk", untagged: null, tagged: vids }));
  }
  return null;
}
