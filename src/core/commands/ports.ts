import { nameOf, type PlanIndex, type Vid } from "../plan";
import {
  carryExactly as carryExactlyIn,
  editPort as editPortText,
  notePorts as notePortsIn,
  paintSelection,
  setCrossing as setCrossingOf,
  setGuard as setGuardOf,
  setMacLimit as setMacLimitOf,
  setProfile,
  setStormLimit as setStormLimitOf,
  setVoicePolicy as setVoicePolicyOf,
  setSoftwareNames as setSoftwareNamesOf,
  type CrossingWay,
  type GuardFlag,
  type Paint,
  type PortField,
} from "../planners";
import { fieldWord } from "../formats";
import { command } from "./command";
import { wrote } from "./says";

interface OfPorts {
  readonly ports: readonly string[];
}

/** "Hall switch 2, 3, 5": ports of one device, or the first few and how many more. */
function portsText(index: PlanIndex, ids: readonly string[]): string {
  const [first] = ids;
  const device = index.plan.port.get(first ?? "")?.device ?? "";
  const labels = ids.slice(0, 6).map((id) => index.plan.port.get(id)?.label ?? "");
  const more = ids.length > 6 ? ` and ${ids.length - 6} more` : "";
  return `${nameOf(index, "device", device)} ${labels.join(", ")}${more}`;
}

export const editPort = command<{
  readonly port: string;
  readonly field: PortField;
  readonly text: string;
}>("edit-port", {
  says: ({ port, field, text }, index) => wrote(nameOf(index, "port", port), field, text),
  run: (context, { port, field, text }) => editPortText(context, port, field, text),
});

export const notePorts = command<OfPorts & { readonly text: string }>("note-ports", {
  says: ({ ports, text }, index) => wrote(portsText(index, ports), "note", text),
  run: (context, { ports, text }) => notePortsIn(context, ports, text),
});

export const paintPorts = command<OfPorts & { readonly paint: Paint; readonly title: string }>(
  "paint-ports",
  {
    says: ({ ports, title }, index) => `${portsText(index, ports)}: ${title}`,
    run: (context, { ports, paint }) => paintSelection(context, ports, paint),
  },
);

export const setGuard = command<OfPorts & { readonly guard: GuardFlag; readonly on: boolean }>("set-guard", {
  says: ({ ports, guard, on }, index) => `${portsText(index, ports)}: ${on ? "" : "no "}${fieldWord(guard)}`,
  run: (context, { ports, guard, on }) => setGuardOf(context, ports, guard, on),
});

export const setMacLimit = command<OfPorts & { readonly text: string }>("set-mac-limit", {
  says: ({ ports, text }, index) => `${portsText(index, ports)}: MAC limit ${text || "none"}`,
  run: (context, { ports, text }) => setMacLimitOf(context, ports, text),
});

export const setStormLimit = command<OfPorts & { readonly text: string }>("set-storm-limit", {
  says: ({ ports, text }, index) =>
    `${portsText(index, ports)}: storm limit ${text === "" ? "none" : `${text.replace(/\s*%$/, "")} %`}`,
  run: (context, { ports, text }) => setStormLimitOf(context, ports, text),
});

export const setVoicePolicy = command<OfPorts & { readonly text: string }>("set-voice-policy", {
  says: ({ ports, text }, index) => `${portsText(index, ports)}: announces ${text || "nothing"} to phones`,
  run: (context, { ports, text }) => setVoicePolicyOf(context, ports, text),
});

export const setPortProfile = command<OfPorts & { readonly profile: string | null }>("set-port-profile", {
  says: ({ ports, profile }, index) =>
    `${portsText(index, ports)}: 802.1X profile ` +
    (profile === null ? "none" : nameOf(index, "signIn", profile)),
  run: (context, { ports, profile }) => setProfile(context, ports, profile),
});

export const setSoftwareNames = command<{
  readonly device: string;
  readonly names: ReadonlyMap<string, string>;
}>("set-software-names", {
  says: ({ device, names }, index) =>
    `${nameOf(index, "device", device)}: ${names.size} names of the software`,
  run: (context, { device, names }) => setSoftwareNamesOf(context, device, names),
  log: ({ device, names }) => ({ device, names: [...names] }),
});

const CROSSING_WORDS = {
  none: "no longer carries",
  tagged: "carries tagged",
  untagged: "carries untagged",
} as const;

export const setCrossing = command<{
  readonly port: string;
  readonly vid: Vid;
  readonly way: CrossingWay;
}>("set-crossing", {
  says: ({ port, vid, way }, index) => `${nameOf(index, "port", port)} ${CROSSING_WORDS[way]} VLAN ${vid}`,
  run: (context, { port, vid, way }) => setCrossingOf(context, port, vid, way),
});

export const carryExactly = command<Record<never, never>>("carry-exactly", {
  says: () => "Every trunk carries exactly what is needed",
  run: ({ edits, index }) => carryExactlyIn(edits, index),
});
