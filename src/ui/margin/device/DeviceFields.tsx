"use client";

import { editDevice, setAbilities, setDevice, setDeviceVlans, setVlanNameLimit } from "@/core/commands";
import { POE_CHOICES, type Abilities, type Device, type PoeChoice } from "@/core/plan";
import { deviceFieldText, deviceVlansText, type DeviceField } from "@/core/planners";
import { modelsOf } from "@/core/catalogue";
import { placesOf } from "@/core/sheets";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

type Row = readonly [field: DeviceField, label: string, hint: string];
const ABOUT: readonly Row[] = [
  ["name", "Name", ""],
  ["place", "Place", "Cabinet A"],
  ["model", "Model", "24-port switch"],
  ["credentialsPlace", "Credentials", "where they are kept, never the word"],
  ["supportUntil", "Support until", "2027-06-30"],
  ["bridgeMac", "Bridge MAC", "decides the root where priorities tie"],
  ["notes", "Notes", ""],
];
const CABINET: readonly Row[] = [
  ["rackUnit", "Height unit", "from the floor"],
  ["heightUnits", "Fills U", "1"],
  ["feed", "Fed by", "circuit 4"],
  ["backupFeed", "Second feed", "none"],
  ["poeBudget", "PoE budget W", "185"],
  ["poeOneLost", "One lost W", "what is left"],
];
const MONO: readonly DeviceField[] = [
  "bridgeMac",
  "supportUntil",
  "rackUnit",
  "heightUnits",
  "poeBudget",
  "poeOneLost",
  "maxVlans",
];
const POE_WORDS: Readonly<Record<PoeChoice, string>> = {
  asKind: "as its kind usually does",
  none: "nothing over the cable",
  class1: "class 1",
  class2: "class 2",
  class3: "class 3",
  class4: "class 4",
  class5: "class 5",
  class6: "class 6",
  class7: "class 7",
  class8: "class 8",
};
const FLAGS: readonly (readonly [
  keyof Abilities &
    (
      | "mixesTagged"
      | "snooping"
      | "arpInspection"
      | "ipv6Guards"
      | "sourceChecks"
      | "isolation"
      | "stormLimits"
      | "signIn"
      | "routes"
      | "radios"
      | "fallsBack"
    ),
  string,
])[] = [
  ["mixesTagged", "untagged and tagged on one port"],
  ["snooping", "DHCP snooping"],
  ["arpInspection", "ARP inspection"],
  ["ipv6Guards", "guards of IPv6 (RA, DHCPv6)"],
  ["sourceChecks", "source checks"],
  ["isolation", "isolated ports"],
  ["stormLimits", "storm limits"],
  ["signIn", "802.1X at its ports"],
  ["routes", "routes between VLANs"],
  ["radios", "radios of its own"],
  ["fallsBack", "falls back unless a change is confirmed"],
];
const TREES = [
  ["rapid", "rapid tree"],
  ["multiple", "multiple trees"],
  ["perVlan", "a tree for each VLAN"],
] as const;

/** What is known of a device and can be written. */
export function DeviceFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const offers = (field: DeviceField): readonly string[] => {
    if (field === "place") return placesOf(index);
    if (field === "model")
      return modelsOf(index.plan)
        .filter((model) => model.kind === device.kind)
        .map((model) => model.model);
    return field === "feed" || field === "backupFeed"
      ? [
          ...new Set([...index.plan.device.values()].flatMap((device) => [device.feed, device.backupFeed])),
        ].filter((text) => text !== "")
      : [];
  };
  const field = ([name, label, hint]: Row) => (
    <TextField
      key={name}
      label={label}
      value={deviceFieldText(device, name)}
      placeholder={hint}
      offers={offers(name)}
      mono={MONO.includes(name)}
      write={(text) => edit(editDevice({ device: device.id, field: name, text }))}
    />
  );
  return (
    <>
      <Section title="Change">{ABOUT.map(field)}</Section>
      <Section title="Cabinet and power">
        {CABINET.map(field)}
        <Choose
          label="Takes itself"
          value={device.poe}
          choices={POE_CHOICES.map((choice) => [choice, POE_WORDS[choice]] as const)}
          onChoose={(poe) => {
            edit(setDevice({ device: device.id, fields: { poe } }));
          }}
        />
      </Section>
      {device.bridging !== "vlan" ? null : <AbilityFields device={device} field={field} />}
    </>
  );
}

function AbilityFields({ device, field }: { device: Device; field: (row: Row) => React.ReactNode }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const { abilities } = device;
  const set = (part: Partial<Abilities>) => {
    edit(setAbilities({ device: device.id, part }));
  };
  const tick = (key: string, checked: boolean, words: string, write: (on: boolean) => void) => (
    <label key={key} className="flex min-h-6 items-center gap-2 px-4 text-13">
      <input type="checkbox" checked={checked} onChange={(event) => write(event.target.checked)} />
      {words}
    </label>
  );
  return (
    <Section title="What its software can do">
      {field(["maxVlans", "Most VLANs", "not known"])}
      <TextField
        label="VLAN names ≤"
        value={device.vlanNameLimit === null ? "" : String(device.vlanNameLimit)}
        placeholder="characters it takes"
        mono
        write={(text) => edit(setVlanNameLimit({ device: device.id, text }))}
      />
      <TextField
        label="VLANs on it"
        value={deviceVlansText(index, device.id)}
        placeholder="as its own list has them: 20 Staff, 30 Phones"
        write={(text) => edit(setDeviceVlans({ device: device.id, text }))}
      />
      <Choose
        label="It shows"
        value={abilities.lists}
        choices={[
          ["one", "membership with its PVID"],
          ["two", "PVID and membership apart"],
        ]}
        onChoose={(lists) => set({ lists })}
      />
      {FLAGS.map(([key, words]) => tick(key, abilities[key], words, (on) => set({ [key]: on })))}
      {tick("ownTag", abilities.ownTag === "drop", "access ports drop every tagged frame", (on) =>
        set({ ownTag: on ? "drop" : "accept" }),
      )}
      {TREES.map(([tree, words]) =>
        tick(tree, abilities.trees.includes(tree), words, (on) =>
          set({ trees: on ? [...abilities.trees, tree] : abilities.trees.filter((kind) => kind !== tree) }),
        ),
      )}
    </Section>
  );
}
