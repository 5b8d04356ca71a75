import type { Band, PlanEdits, Radio, RadioRules } from "../../plan";
import type { EditContext, IdSource, Refusal } from "../planner";

/** The widths that suit a band where there are neighbours. */
const WIDTH: Readonly<Record<Band, Radio["widthMhz"]>> = { "2.4": 20, "5": 40, "6": 80 };
const WIDEST: Readonly<Record<Band, number>> = { "2.4": 40, "5": 160, "6": 320 };
const RADIO_WIDTHS = [20, 40, 80, 160, 320] as const;
export const widthsFor = (band: Band): Radio["widthMhz"][] =>
  RADIO_WIDTHS.filter((width) => width <= WIDEST[band]);

/** The radios a new access point has: one for each of the bands. */
export function addRadios(
  edits: PlanEdits,
  ids: IdSource,
  device: string,
  bands: readonly Band[] = ["2.4", "5"],
): void {
  for (const band of bands)
    edits.put("radio", {
      id: ids(),
      device,
      band,
      enabled: true,
      channel: null,
      widthMhz: WIDTH[band],
      power: "",
    });
}

/** Gives an access point a radio in a band, or takes it away. */
export function setRadioIn({ edits, ids }: EditContext, device: string, band: Band, wanted: boolean): void {
  const own = edits.all("radio").filter((radio) => radio.device === device && radio.band === band);
  if (wanted && own.length === 0) addRadios(edits, ids, device, [band]);
  if (!wanted) for (const radio of own) edits.remove("radio", radio.id);
}

/** A radio's channel as it is typed; empty leaves it to be decided. */
export function setChannel({ edits }: Pick<EditContext, "edits">, id: string, typed: string): Refusal {
  const text = typed.trim();
  const channel = /^\d{1,3}$/.test(text) ? Number(text) : null;
  if (text !== "" && (channel === null || channel < 1 || channel > 253))
    return `"${text}" is no channel; write its number, such as 6 or 36, or leave it empty.`;
  const radio = edits.need("radio", id);
  const allowed = edits
    .need("site", edits.plan.site.id)
    .radio.channels.filter((channel) => channel.band === radio.band);
  if (channel !== null && allowed.length > 0 && !allowed.some((part) => part.number === channel))
    return `Channel ${channel} is not in the site's list for ${radio.band} GHz; choose one of ${allowed
      .slice(0, 12)
      .map((part) => part.number)
      .join(", ")}${allowed.length > 12 ? " …" : ""}, or edit the list.`;
  edits.patch("radio", id, { channel });
  return null;
}

export function setRadio(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  fields: Partial<Pick<Radio, "widthMhz" | "power" | "enabled">>,
): Refusal {
  if ((fields.power ?? "").length > 120) return "A note has at most 120 characters.";
  edits.patch("radio", id, fields);
  return null;
}

/** Whether two access points hear each other, as entered; what follows from their rooms stays. */
export function setHearing(
  { edits }: Pick<EditContext, "edits">,
  a: string,
  b: string,
  hears: boolean,
): void {
  const [one, other] = [edits.need("device", a), edits.need("device", b)];
  edits.patch("device", a, {
    hears: hears ? [...new Set([...one.hears, b])] : one.hears.filter((id) => id !== b),
  });
  if (!hears) edits.patch("device", b, { hears: other.hears.filter((id) => id !== a) });
}

/** The channels that may be used. */
export function setRadioRules({ edits }: Pick<EditContext, "edits">, radio: RadioRules): void {
  edits.put("site", { ...edits.need("site", edits.plan.site.id), radio });
}

/** "36, 40, 44, 52 dfs, 56 dfs indoor": the channels of a band as they can be typed in again. */
export const channelsText = (rules: RadioRules, band: Band): string =>
  rules.channels
    .filter((channel) => channel.band === band)
    .map((channel) =>
      [channel.number, channel.dfs ? "dfs" : "", channel.indoor ? "indoor" : ""]
        .filter((word) => word !== "")
        .join(" "),
    )
    .join(", ");

/** Writes the channels of a band. */
export function setChannels({ edits }: Pick<EditContext, "edits">, band: Band, typed: string): Refusal {
  const site = edits.need("site", edits.plan.site.id);
  const channels: RadioRules["channels"] = [];
  for (const part of typed
    .split(/[,;\n]/)
    .map((part) => part.trim().toLowerCase())
    .filter((part) => part !== "")) {
    const match = /^(\d{1,3})((?:\s+(?:dfs|indoor))*)$/.exec(part);
    const number = Number(match?.[1]);
    if (match === null || number < 1 || number > 253)
      return (
        `"${part}" is no channel; write its number, and dfs or ` +
        "indoor behind it where that holds, with commas between."
      );
    if (channels.some((channel) => channel.number === number))
      return `Channel ${number} stands there twice; write it once.`;
    channels.push({ band, number, dfs: part.includes("dfs"), indoor: part.includes("indoor") });
  }
  const others = site.radio.channels.filter((channel) => channel.band !== band);
  if (others.length + channels.length > 200)
    return "At most 200 channels; leave out those that are never used.";
  edits.put("site", { ...site, radio: { ...site.radio, channels: [...others, ...channels] } });
  return null;
}
