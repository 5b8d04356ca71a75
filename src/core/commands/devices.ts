import { nameOf, type Abilities, type Device, type OwnModel } from "../plan";
import {
  addDevice as addDeviceTo,
  addLeg as addLegTo,
  addStack as addStackTo,
  chooseRoot as chooseRootIn,
  editDevice as editDeviceText,
  removeDevice as removeDeviceFrom,
  rescueNetwork,
  putModel as putModelIn,
  removeLeg as removeLegFrom,
  removeModel as removeModelFrom,
  setAbilities as setAbilitiesOf,
  setAsksFrom as setAsksFromOf,
  setDeviceVlans as setDeviceVlansOf,
  setInstances,
  setLegAddress as setLegAddressOf,
  setProtectedVids,
  setRegion,
  setTreeKind as setTreeKindOf,
  setTreePriority as setTreePriorityOf,
  setTreeTimer as setTreeTimerOf,
  LEAFLET_FIELDS,
  pasteLeaflets as pasteLeafletsInto,
  setAdminText,
  setLeaflet as setLeafletOf,
  type LeafletField,
  TREE_TIMERS,
  type ProtectedVids,
  type TreeTimer,
  setVlanNameLimit as setVlanNameLimitOf,
  type AddDevice,
  type DeviceField,
  type ModelText,
} from "../planners";
import type { Taken } from "../readback";
import { counted } from "../repairs";
import { command } from "./command";
import { chose, wrote } from "./says";

interface OfDevice {
  readonly device: string;
}
interface DeviceText extends OfDevice {
  readonly text: string;
}

export const addDevice = command<AddDevice & { readonly title: string }>("add-device", {
  says: ({ name, title }) => `Added ${name}, ${title}`,
  run: (context, wanted) => addDeviceTo(context, wanted),
});

export const addStack = command<{ readonly text: string }>("add-stack", {
  says: ({ text }) => `Added ${text.trim()}`,
  run: (context, { text }) => addStackTo(context, text),
});

export const removeDevice = command<OfDevice>("remove-device", {
  says: ({ device }, index) => `Removed ${nameOf(index, "device", device)}`,
  run: ({ edits }, { device }) => removeDeviceFrom(edits, device),
});

export const addRescueNetwork = command<OfDevice>("rescue-network", {
  says: ({ device }, index) => `Kept a way back into ${nameOf(index, "device", device)}`,
  run: (context, { device }) => rescueNetwork(context, device),
});

export const editDevice = command<DeviceText & { readonly field: DeviceField }>("edit-device", {
  says: ({ device, field, text }, index) =>
    wrote(nameOf(index, "device", device), field, field === "notes" && text !== "" ? "written" : text),
  run: (context, { device, field, text }) => editDeviceText(context, device, field, text),
});

export const setDevice = command<
  OfDevice & { readonly fields: Partial<Pick<Device, "poe" | "defaultRoute">> }
>("set-device", {
  says: ({ device, fields }, index) => chose(index, nameOf(index, "device", device), fields),
  run: ({ edits }, { device, fields }) => edits.patch("device", device, fields),
});

export const setAbilities = command<OfDevice & { readonly part: Partial<Abilities> }>("set-abilities", {
  says: ({ device, part }, index) => chose(index, nameOf(index, "device", device), part),
  run: (context, { device, part }) => setAbilitiesOf(context, device, part),
});

export const setVlanNameLimit = command<DeviceText>("set-vlan-name-limit", {
  says: ({ device, text }, index) =>
    `${nameOf(index, "device", device)}: VLAN names of at most ${text || "any length"}`,
  run: (context, { device, text }) => setVlanNameLimitOf(context, device, text),
});

export const setDeviceVlans = command<DeviceText>("set-device-vlans", {
  says: ({ device, text }, index) =>
    `${nameOf(index, "device", device)}: its own VLANs ${text === "" ? "not known" : text}`,
  run: (context, { device, text }) => setDeviceVlansOf(context, device, text),
});

export const setAsksFrom = command<OfDevice & { readonly leg: string | null }>("set-asks-from", {
  says: ({ device, leg }, index) =>
    `${nameOf(index, "device", device)} asks its servers from ` +
    (leg === null ? "the first of its addresses" : nameOf(index, "interface", leg)),
  run: (context, { device, leg }) => setAsksFromOf(context, device, leg),
});

export const addLeg = command<DeviceText & { readonly segment: string }>("add-leg", {
  says: ({ device, segment, text }, index) =>
    `${nameOf(index, "device", device)}: ${text} in ${nameOf(index, "segment", segment)}`,
  run: (context, { device, segment, text }) => addLegTo(context, device, segment, text),
});

export const setLegAddress = command<{ readonly leg: string; readonly text: string }>("set-leg-address", {
  says: ({ leg, text }, index) => `${nameOf(index, "interface", leg)}: ${text === "" ? "no address" : text}`,
  run: (context, { leg, text }) => setLegAddressOf(context, leg, text),
});

export const removeLeg = command<OfDevice & { readonly leg: string }>("remove-leg", {
  says: ({ device, leg }, index) =>
    `${nameOf(index, "device", device)} has no address in ${nameOf(index, "interface", leg)} any more`,
  run: (context, { leg }) => removeLegFrom(context, leg),
});

const IN_VLANS: Readonly<Record<ProtectedVids, string>> = {
  snooping: "snoops in",
  arpInspection: "inspects ARP in",
  routerGuard: "guards router advertisements in",
  dhcp6Guard: "guards DHCPv6 in",
};

export const setProtectedVlans = command<DeviceText & { readonly field: ProtectedVids }>(
  "set-protected-vlans",
  {
    says: ({ device, field, text }, index) =>
      `${nameOf(index, "device", device)}: ${IN_VLANS[field]} ${text === "" ? "no VLAN" : text}`,
    run: (context, { device, field, text }) => setProtectedVids(context, device, field, text),
  },
);

export const setProtections = command<
  OfDevice & { readonly fields: Partial<Pick<Device["protections"], "option82" | "bound" | "keepsBindings">> }
>("set-protection", {
  says: ({ device, fields }, index) => chose(index, nameOf(index, "device", device), fields),
  run: ({ edits }, { device, fields }) => {
    const { protections } = edits.need("device", device);
    edits.patch("device", device, { protections: { ...protections, ...fields } });
  },
});

export const setTreeKind = command<OfDevice & { readonly kind: Device["tree"]["kind"] }>("set-tree", {
  says: ({ device, kind }, index) => chose(index, nameOf(index, "device", device), { spanningTree: kind }),
  run: (context, { device, kind }) => setTreeKindOf(context, device, kind),
});

export const setTreePriority = command<DeviceText>("set-tree-priority", {
  says: ({ device, text }, index) => `${nameOf(index, "device", device)}: bridge priority ${text}`,
  run: (context, { device, text }) => setTreePriorityOf(context, device, text),
});

export const setTreeTimer = command<DeviceText & { readonly timer: TreeTimer }>("set-tree-timer", {
  says: ({ device, timer, text }, index) =>
    `${nameOf(index, "device", device)}: ${TREE_TIMERS[timer].words} ${text.trim()}`,
  run: (context, { device, timer, text }) => setTreeTimerOf(context, device, timer, text),
});

export const setAdminSignIn = command<
  OfDevice & { readonly fields: Partial<Pick<Device["adminSignIn"], "by" | "localAccount">> }
>("set-admin-sign-in", {
  says: ({ device, fields }, index) =>
    chose(index, `${nameOf(index, "device", device)} administrators`, fields),
  run: ({ edits }, { device, fields }) => {
    const { adminSignIn } = edits.need("device", device);
    edits.patch("device", device, { adminSignIn: { ...adminSignIn, ...fields } });
  },
});

export const editAdminSignIn = command<DeviceText & { readonly field: "servers" | "port" }>(
  "edit-admin-sign-in",
  {
    says: ({ device, field, text }, index) =>
      wrote(`${nameOf(index, "device", device)} administrators`, field, text),
    run: (context, { device, field, text }) => setAdminText(context, device, field, text),
  },
);

export const setTreeCosts = command<OfDevice & { readonly costs: Device["tree"]["costs"] }>(
  "set-tree-costs",
  {
    says: ({ device, costs }, index) => `${nameOf(index, "device", device)}: ${costs} costs`,
    run: ({ edits }, { device, costs }) =>
      edits.patch("device", device, { tree: { ...edits.need("device", device).tree, costs } }),
  },
);

export const setTreeRegion = command<DeviceText & { readonly field: "region" | "revision" }>(
  "set-tree-region",
  {
    says: ({ device, field, text }, index) => wrote(nameOf(index, "device", device), field, text),
    run: (context, { device, field, text }) => setRegion(context, device, field, text),
  },
);

export const setTreeInstances = command<DeviceText>("set-tree-instances", {
  says: ({ device, text }, index) => `${nameOf(index, "device", device)}: trees ${text || "none"}`,
  run: (context, { device, text }) => setInstances(context, device, text),
});

export const chooseRoot = command<{ readonly root: string; readonly second: string | null }>("choose-root", {
  says: ({ root, second }, index) =>
    `${nameOf(index, "device", root)} is the root` +
    (second === null ? "" : `, ${nameOf(index, "device", second)} takes over`),
  run: (context, { root, second }) => chooseRootIn(context, root, second),
});

export const placeDevices = command<{
  readonly places: ReadonlyMap<string, Device["position"]>;
}>("place-device", {
  says: ({ places }, index) => {
    const [only, ...more] = [...places.keys()];
    const what =
      only !== undefined && more.length === 0 ? nameOf(index, "device", only) : `${places.size} devices`;
    return `Moved ${what} on the drawing`;
  },
  run: ({ edits }, { places }) => {
    for (const [id, position] of places) edits.patch("device", id, { position });
  },
  log: ({ places }) => ({ devices: Object.fromEntries(places) }),
});

export const arrangeDevices = command<Record<never, never>>("arrange-devices", {
  says: () => "Arranged the drawing anew",
  run: ({ edits }) => {
    for (const device of edits.all("device"))
      if (device.position !== null) edits.patch("device", device.id, { position: null });
  },
});

export const putModel = command<{ readonly model: string | null; readonly typed: ModelText }>("put-model", {
  says: ({ typed }) => `Model ${typed.name}`,
  run: (context, { model, typed }) => putModelIn(context, model, typed),
});

export const removeModel = command<{ readonly model: OwnModel["id"] }>("remove-model", {
  says: ({ model }, index) => `Removed the model ${nameOf(index, "deviceModel", model)}`,
  run: (context, { model }) => removeModelFrom(context, model),
});

export const takeFromDevice = command<OfDevice & { readonly taken: readonly Taken[] }>("take-from-device", {
  says: ({ device, taken }, index) =>
    `${counted(taken.length, "thing", "things")} planned as on ${nameOf(index, "device", device)} now`,
  run: ({ edits }, { taken }) => {
    for (const { kind, id, fields } of taken) edits.patch(kind, id, fields);
  },
  log: ({ device, taken }) => ({ device, things: taken.map(({ id }) => id) }),
});

export const setLeaflet = command<{
  readonly device: string;
  readonly field: LeafletField;
  readonly text: string;
}>("set-leaflet", {
  says: ({ device, field, text }, index) => {
    const model = index.plan.device.get(device)?.model ?? "";
    const word = LEAFLET_FIELDS.find(([key]) => key === field)?.[1] ?? field;
    return `Leaflet of ${model}, ${word.toLowerCase()}: ${text.trim() || "nothing"}`;
  },
  run: (context, { device, field, text }) =>
    setLeafletOf(context, context.edits.need("device", device).model, field, text),
});

export const pasteLeaflets = command<{ readonly rows: readonly (readonly string[])[] }>("paste-leaflets", {
  says: ({ rows }) => `Pasted ${counted(Math.max(0, rows.length - 1), "leaflet", "leaflets")}`,
  run: (context, { rows }) => pasteLeafletsInto(context, rows),
  log: ({ rows }) => ({ rows: rows.length }),
});

export const forgetLeaflet = command<{ readonly leaflet: string }>("forget-leaflet", {
  says: ({ leaflet }, index) => `Forgot ${nameOf(index, "leaflet", leaflet)}`,
  run: ({ edits }, { leaflet }) => edits.remove("leaflet", leaflet),
});
