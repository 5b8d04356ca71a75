import { nameOf, type Abilities, type Device, type OwnModel } from "../plan";
import {
  addDevice as addDeviceTo,
  addLeg as addLegTo,
  addStack as addStackTo,
  chooseRoot as chooseRootIn,
  editDevice as editDeviceText,
  removeDevice as removeDeviceFrom,
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
  setVlanNameLimit as setVlanNameLimitOf,
  type AddDevice,
  type DeviceField,
  type ModelText,
} from "../planners";
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
  run: (bench, wanted) => addDeviceTo(bench, wanted),
});

export const addStack = command<{ readonly text: string }>("add-stack", {
  says: ({ text }) => `Added ${text.trim()}`,
  run: (bench, { text }) => addStackTo(bench, text),
});

export const removeDevice = command<OfDevice>("remove-device", {
  says: ({ device }, index) => `Removed ${nameOf(index, "device", device)}`,
  run: ({ draft }, { device }) => removeDeviceFrom(draft, device),
});

export const editDevice = command<DeviceText & { readonly field: DeviceField }>("edit-device", {
  says: ({ device, field, text }, index) =>
    wrote(nameOf(index, "device", device), field, field === "notes" && text !== "" ? "written" : text),
  run: (bench, { device, field, text }) => editDeviceText(bench, device, field, text),
});

export const setDevice = command<
  OfDevice & { readonly fields: Partial<Pick<Device, "poe" | "defaultRoute">> }
>("set-device", {
  says: ({ device, fields }, index) => chose(index, nameOf(index, "device", device), fields),
  run: ({ draft }, { device, fields }) => draft.patch("device", device, fields),
});

export const setAbilities = command<OfDevice & { readonly part: Partial<Abilities> }>("set-abilities", {
  says: ({ device, part }, index) => chose(index, nameOf(index, "device", device), part),
  run: (bench, { device, part }) => setAbilitiesOf(bench, device, part),
});

export const setVlanNameLimit = command<DeviceText>("set-vlan-name-limit", {
  says: ({ device, text }, index) =>
    `${nameOf(index, "device", device)}: VLAN names of at most ${text || "any length"}`,
  run: (bench, { device, text }) => setVlanNameLimitOf(bench, device, text),
});

export const setDeviceVlans = command<DeviceText>("set-device-vlans", {
  says: ({ device, text }, index) =>
    `${nameOf(index, "device", device)}: its own VLANs ${text === "" ? "not known" : text}`,
  run: (bench, { device, text }) => setDeviceVlansOf(bench, device, text),
});

export const setAsksFrom = command<OfDevice & { readonly leg: string | null }>("set-asks-from", {
  says: ({ device, leg }, index) =>
    `${nameOf(index, "device", device)} asks its servers from ` +
    (leg === null ? "the first of its addresses" : nameOf(index, "interface", leg)),
  run: (bench, { device, leg }) => setAsksFromOf(bench, device, leg),
});

export const addLeg = command<DeviceText & { readonly segment: string }>("add-leg", {
  says: ({ device, segment, text }, index) =>
    `${nameOf(index, "device", device)}: ${text} in ${nameOf(index, "segment", segment)}`,
  run: (bench, { device, segment, text }) => addLegTo(bench, device, segment, text),
});

export const setLegAddress = command<{ readonly leg: string; readonly text: string }>("set-leg-address", {
  says: ({ leg, text }, index) => `${nameOf(index, "interface", leg)}: ${text === "" ? "no address" : text}`,
  run: (bench, { leg, text }) => setLegAddressOf(bench, leg, text),
});

export const removeLeg = command<OfDevice & { readonly leg: string }>("remove-leg", {
  says: ({ device, leg }, index) =>
    `${nameOf(index, "device", device)} has no address in ${nameOf(index, "interface", leg)} any more`,
  run: (bench, { leg }) => removeLegFrom(bench, leg),
});

export const setProtectedVlans = command<DeviceText & { readonly field: "snooping" | "arpInspection" }>(
  "set-protected-vlans",
  {
    says: ({ device, field, text }, index) =>
      `${nameOf(index, "device", device)}: ${field === "snooping" ? "snoops in" : "inspects ARP in"} ` +
      (text === "" ? "no VLAN" : text),
    run: (bench, { device, field, text }) => setProtectedVids(bench, device, field, text),
  },
);

export const setProtections = command<
  OfDevice & { readonly fields: Partial<Pick<Device["protections"], "option82" | "bound">> }
>("set-protection", {
  says: ({ device, fields }, index) => chose(index, nameOf(index, "device", device), fields),
  run: ({ draft }, { device, fields }) => {
    const { protections } = draft.need("device", device);
    draft.patch("device", device, { protections: { ...protections, ...fields } });
  },
});

export const setTreeKind = command<OfDevice & { readonly kind: Device["tree"]["kind"] }>("set-tree", {
  says: ({ device, kind }, index) => chose(index, nameOf(index, "device", device), { spanningTree: kind }),
  run: (bench, { device, kind }) => setTreeKindOf(bench, device, kind),
});

export const setTreePriority = command<DeviceText>("set-tree-priority", {
  says: ({ device, text }, index) => `${nameOf(index, "device", device)}: bridge priority ${text}`,
  run: (bench, { device, text }) => setTreePriorityOf(bench, device, text),
});

export const setTreeCosts = command<OfDevice & { readonly costs: Device["tree"]["costs"] }>(
  "set-tree-costs",
  {
    says: ({ device, costs }, index) => `${nameOf(index, "device", device)}: ${costs} costs`,
    run: ({ draft }, { device, costs }) =>
      draft.patch("device", device, { tree: { ...draft.need("device", device).tree, costs } }),
  },
);

export const setTreeRegion = command<DeviceText & { readonly field: "region" | "revision" }>(
  "set-tree-region",
  {
    says: ({ device, field, text }, index) => wrote(nameOf(index, "device", device), field, text),
    run: (bench, { device, field, text }) => setRegion(bench, device, field, text),
  },
);

export const setTreeInstances = command<DeviceText>("set-tree-instances", {
  says: ({ device, text }, index) => `${nameOf(index, "device", device)}: trees ${text || "none"}`,
  run: (bench, { device, text }) => setInstances(bench, device, text),
});

export const chooseRoot = command<{ readonly root: string; readonly second: string | null }>("choose-root", {
  says: ({ root, second }, index) =>
    `${nameOf(index, "device", root)} is the root` +
    (second === null ? "" : `, ${nameOf(index, "device", second)} takes over`),
  run: (bench, { root, second }) => chooseRootIn(bench, root, second),
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
  run: ({ draft }, { places }) => {
    for (const [id, position] of places) draft.patch("device", id, { position });
  },
  log: ({ places }) => ({ devices: Object.fromEntries(places) }),
});

export const arrangeDevices = command<Record<never, never>>("arrange-devices", {
  says: () => "Arranged the drawing anew",
  run: ({ draft }) => {
    for (const device of draft.all("device"))
      if (device.position !== null) draft.patch("device", device.id, { position: null });
  },
});

export const putModel = command<{ readonly model: string | null; readonly typed: ModelText }>("put-model", {
  says: ({ typed }) => `Model ${typed.name}`,
  run: (bench, { model, typed }) => putModelIn(bench, model, typed),
});

export const removeModel = command<{ readonly model: OwnModel["id"] }>("remove-model", {
  says: ({ model }, index) => `Removed the model ${nameOf(index, "deviceModel", model)}`,
  run: (bench, { model }) => removeModelFrom(bench, model),
});
