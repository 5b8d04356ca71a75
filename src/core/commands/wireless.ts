import { nameOf, type Band, type PlanIndex, type Radio, type Ssid } from "../plan";
import {
  addSsid as addSsidTo,
  assignAllChannels,
  BAND_WORDS,
  editRadioCell,
  editSsid,
  editSsidCell,
  pasteRadios as pasteRadiosInto,
  pasteSsids as pasteSsidsInto,
  removeSsid,
  setChannel as setChannelOf,
  setChannels as setChannelsIn,
  setHearing as setHearingOf,
  setNameSchool as setNameSchoolIn,
  setRadio as setRadioOf,
  setRadioIn as setRadioInOf,
  setRadioRules as setRadioRulesTo,
  type RadioColumn,
  type SsidColumn,
} from "../planners";
import { RADIO_SETS } from "../wireless";
import { command, eachCell, type Cell, type Pasted } from "./command";
import { chose, count, emptied, pasted, wrote } from "./says";

const deviceName = (index: PlanIndex, id: string): string => nameOf(index, "device", id);
const ssidName = (index: PlanIndex, id: string): string => nameOf(index, "ssid", id);
const radioName = (index: PlanIndex, id: string): string => {
  const radio = index.plan.radio.get(id);
  return radio === undefined ? "a radio" : `${deviceName(index, radio.device)}, ${BAND_WORDS[radio.band]}`;
};

/** "Network 3": the first such name that no wireless name has. */
function freeName(index: PlanIndex): string {
  const taken = new Set([...index.plan.ssid.values()].map((ssid) => ssid.name));
  let n = 1;
  while (taken.has(`Network ${n}`)) n += 1;
  return `Network ${n}`;
}

/** Without a name it gets the next free one. */
export const addSsid = command<{ readonly segment: string; readonly name: string | null }>("add-ssid", {
  says: ({ segment, name }, index) =>
    `Wireless name ${name ?? freeName(index)} leads into ${nameOf(index, "segment", segment)}`,
  run: (context, { segment, name }) => addSsidTo(context, segment, name ?? freeName(context.index)),
});

export const removeSsids = command<{ readonly ssids: readonly string[] }>("remove-ssid", {
  says: ({ ssids }, index) => {
    const [only, ...more] = ssids;
    return only !== undefined && more.length === 0
      ? `Removed the wireless name ${ssidName(index, only)}`
      : `Removed ${count(ssids, "wireless name")}`;
  },
  run: ({ edits }, { ssids }) => {
    for (const id of ssids) removeSsid(edits, id);
  },
});

export const setSsid = command<{ readonly ssid: string; readonly fields: Partial<Omit<Ssid, "id">> }>(
  "set-ssid",
  {
    says: ({ ssid, fields }, index) => chose(index, ssidName(index, ssid), fields),
    run: (context, { ssid, fields }) => editSsid(context, ssid, fields),
  },
);

export const editSsidText = command<{
  readonly ssid: string;
  readonly column: SsidColumn;
  readonly text: string;
}>("edit-ssid", {
  says: ({ ssid, column, text }, index) => wrote(ssidName(index, ssid), column, text),
  run: (context, { ssid, column, text }) => editSsidCell(context, ssid, column, text),
});

export const pasteSsids = command<Pasted<SsidColumn>>("paste-ssids", {
  says: ({ rows }) => pasted(rows, "the wireless names"),
  run: (context, { rows, from, onto }) => pasteSsidsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const clearSsids = command<{ readonly cells: readonly Cell<SsidColumn>[] }>("clear-ssids", {
  says: ({ cells }) => emptied(cells, "the wireless names"),
  run: (context, { cells }) => eachCell(cells, (row, column) => editSsidCell(context, row, column, "")),
});

export const setNameSchool = command<{ readonly school: "one" | "each" }>("set-name-school", {
  says: ({ school }) =>
    school === "one" ? "One wireless name everywhere" : "A wireless name for each access point",
  run: (context, { school }) => setNameSchoolIn(context, school),
});

export const setRadio = command<{
  readonly radio: string;
  readonly fields: Partial<Pick<Radio, "widthMhz" | "power" | "enabled">>;
}>("set-radio", {
  says: ({ radio, fields }, index) => chose(index, radioName(index, radio), fields),
  run: (context, { radio, fields }) => setRadioOf(context, radio, fields),
});

export const setRadioIn = command<{ readonly device: string; readonly band: Band; readonly on: boolean }>(
  "set-radio-in",
  {
    says: ({ device, band, on }, index) =>
      `${deviceName(index, device)}: ${on ? "a" : "no"} radio in ${BAND_WORDS[band]}`,
    run: (context, { device, band, on }) => setRadioInOf(context, device, band, on),
  },
);

export const setChannel = command<{ readonly radio: string; readonly text: string }>("set-channel", {
  says: ({ radio, text }, index) => `${radioName(index, radio)}: channel ${text || "left to it"}`,
  run: (context, { radio, text }) => setChannelOf(context, radio, text),
});

export const setHearing = command<{ readonly a: string; readonly b: string; readonly on: boolean }>(
  "set-hearing",
  {
    says: ({ a, b, on }, index) =>
      `${deviceName(index, a)} ${on ? "hears" : "does not hear"} ${deviceName(index, b)}`,
    run: (context, { a, b, on }) => setHearingOf(context, a, b, on),
  },
);

export const editRadio = command<{
  readonly device: string;
  readonly column: RadioColumn;
  readonly text: string;
}>("edit-radio", {
  says: ({ device, column, text }, index) =>
    column === "place"
      ? wrote(deviceName(index, device), "place", text)
      : `${deviceName(index, device)}: ${column.endsWith("width") ? column : `${column} GHz channel`} ` +
        (text || "none"),
  run: (context, { device, column, text }) => editRadioCell(context, device, column, text),
});

export const pasteRadios = command<Pasted<RadioColumn>>("paste-radios", {
  says: ({ rows }) => pasted(rows, "the radios"),
  run: (context, { rows, from, onto }) => pasteRadiosInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const clearRadios = command<{ readonly cells: readonly Cell<RadioColumn>[] }>("clear-radios", {
  says: ({ cells }) => emptied(cells, "the radios"),
  run: (context, { cells }) => eachCell(cells, (row, column) => editRadioCell(context, row, column, "")),
});

export const giveChannels = command<{
  readonly bands: readonly Band[];
  readonly useDfs: Parameters<typeof assignAllChannels>[3];
}>("assign-channels", {
  says: ({ bands }) => `Channels for ${bands.map((band) => BAND_WORDS[band]).join(", ")}`,
  run: ({ edits, index }, { bands, useDfs }) => assignAllChannels(edits, index, bands, useDfs),
});

export const setRadioRules = command<{ readonly set: keyof typeof RADIO_SETS }>("set-radio-rules", {
  says: ({ set }) => `Channels as listed for ${RADIO_SETS[set].region}`,
  run: (context, { set }) =>
    setRadioRulesTo(context, { region: RADIO_SETS[set].region, channels: [...RADIO_SETS[set].channels] }),
});

export const setChannels = command<{ readonly band: Band; readonly text: string }>("set-channels", {
  says: ({ band, text }) => `Channels in ${BAND_WORDS[band]}: ${text || "none"}`,
  run: (context, { band, text }) => setChannelsIn(context, band, text),
});
