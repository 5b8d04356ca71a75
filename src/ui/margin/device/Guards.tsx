"use client";

import { setGuard, setMacLimit, setPortProfile, setStormLimit, setVoicePolicy } from "@/core/commands";
import { byNaturalText } from "@/core/kernel";
import type { Port } from "@/core/plan";
import { type GuardFlag, voicePolicyText } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { Choose } from "../../kit/Choose";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

const FLAGS: readonly (readonly [GuardFlag, string, string])[] = [
  ["edge", "edge", "towards end devices"],
  ["bpduGuard", "BPDU guard", "towards end devices"],
  ["loopGuard", "loop guard", "between switches"],
  ["dhcpTrust", "DHCP trusted", "towards the server only"],
  ["arpTrust", "ARP trusted", "towards gear that checks itself"],
  ["raTrust", "RA trusted", "towards the IPv6 router only"],
  ["sourceCheck", "source check", "bound addresses only"],
  ["isolated", "isolated", "from other isolated ports"],
  ["signIn", "802.1X", "sign-in at the port"],
  ["restrictedRole", "restricted role", "never the way to the root"],
  ["trustsMarks", "marks kept", "DSCP and PCP of what comes in"],
];

/** The value that all of some ports share; null when they differ. */
const shared = <T,>(values: readonly T[]): T | null => {
  const [first] = values;
  return first !== undefined && values.every((value) => value === first) ? first : null;
};

/** What guards the chosen ports. A box that stands for ports that differ is neither ticked nor empty. */
export function Guards({ ports }: { ports: readonly Port[] }) {
  const edit = usePlan((state) => state.edit);
  const ids = ports.map((port) => port.id);
  const set = (guard: GuardFlag, on: boolean) => {
    edit(setGuard({ ports: ids, guard, on }));
  };
  const limit = shared(ports.map(({ guards }) => guards.macLimit));
  const write = (text: string) => edit(setMacLimit({ ports: ids, text }));
  const profiles = [...useIndex().plan.signIn.values()].sort((a, b) => byNaturalText(a.name, b.name));
  const only = profiles.length === 1 ? `${profiles[0]?.name ?? ""}, the only one` : "none";
  const profile = shared(ports.map(({ guards }) => guards.profile ?? ""));
  const choices: [string, string][] = [
    ...(profile === null ? [["they differ", "they differ"] as [string, string]] : []),
    ["", only],
    ...profiles.map((profile): [string, string] => [profile.id, profile.name]),
  ];
  const choose = (id: string) => {
    if (id === "they differ") return;
    edit(setPortProfile({ ports: ids, profile: id === "" ? null : id }));
  };
  return (
    <Section title="Guards">
      {FLAGS.map(([guard, words, where]) => {
        const state = shared(ports.map(({ guards }) => guards[guard]));
        return (
          <label key={guard} className="flex min-h-6 items-center gap-2 px-4 text-13">
            <input
              type="checkbox"
              checked={state === true}
              ref={(box) => {
                if (box !== null) box.indeterminate = state === null;
              }}
              onChange={(event) => set(guard, event.target.checked)}
            />
            {words}
            <span className="text-12 text-ink2">{state === null ? "they differ" : where}</span>
          </label>
        );
      })}
      <TextField
        label="MAC limit"
        mono
        value={limit === null ? "" : String(limit)}
        placeholder="none; phone + PC: 3"
        write={write}
      />
      <TextField
        label="Storm limit %"
        mono
        value={String(shared(ports.map(({ guards }) => guards.stormPercent ?? "")) ?? "")}
        placeholder="none; 1 to 100"
        write={(text) => edit(setStormLimit({ ports: ids, text }))}
      />
      <TextField
        label="Tells phones"
        mono
        value={shared(ports.map(({ voicePolicy }) => voicePolicyText(voicePolicy))) ?? ""}
        placeholder="30 priority 5 DSCP 46"
        write={(text) => edit(setVoicePolicy({ ports: ids, text }))}
      />
      {profiles.length === 0 ? null : (
        <Choose label="802.1X profile" value={profile ?? "they differ"} choices={choices} onChoose={choose} />
      )}
    </Section>
  );
}
