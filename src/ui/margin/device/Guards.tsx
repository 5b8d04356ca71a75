"use client";

import type { Port } from "@/core/plan";
import { setGuard, setGuardText, type GuardFlag } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

const FLAGS: readonly (readonly [GuardFlag, string, string])[] = [
  ["edge", "edge", "towards end devices"], ["bpduGuard", "BPDU guard", "towards end devices"], ["loopGuard", "loop guard", "between switches"], ["dhcpTrust", "DHCP trusted", "towards the server only"], ["arpTrust", "ARP trusted", "towards gear that checks itself"],
  ["signIn", "802.1X", "sign-in at the port"], ["restrictedRole", "restricted role", "never the way to the root"],
];

/** The value that all of some ports share; null when they differ. */
const shared = <T,>(values: readonly T[]): T | null => { const [first] = values; return first !== undefined && values.every((one) => one === first) ? first : null; };

/** What guards the chosen ports. A box that stands for ports that differ is neither ticked nor empty. */
export function Guards({ name, run, ports }: { name: string; run: string; ports: readonly Port[] }) {
  const edit = usePlan((state) => state.edit);
  const ids = ports.map((port) => port.id);
  const set = (guard: GuardFlag, words: string, on: boolean) => { edit({ planner: "set-guard", summary: `${name} ${run}: ${on ? "" : "no "}${words}`, args: { ports: ids, guard, on } }, (bench) => setGuard(bench, ids, guard, on)); };
  const limit = shared(ports.map(({ guards }) => guards.macLimit));
  const write = (guard: "macLimit" | "profile", text: string) => edit({ planner: "set-guard", summary: `${name} ${run}: ${guard === "profile" ? "802.1X profile" : "MAC limit"} ${text || "none"}`, args: { ports: ids, guard, text } }, (bench) => setGuardText(bench, ids, guard, text));
  return (
    <Section title="Guards">
      {FLAGS.map(([guard, words, where]) => {
        const state = shared(ports.map(({ guards }) => guards[guard]));
        return (
          <label key={guard} className="flex min-h-6 items-center gap-2 px-4 text-13">
            <input type="checkbox" checked={state === true} ref={(box) => { if (box !== null) box.indeterminate = state === null; }} onChange={(event) => set(guard, words, event.target.checked)} />
            {words}<span className="text-12 text-ink2">{state === null ? "they differ" : where}</span>
          </label>
        );
      })}
      <TextField label="MAC limit" mono value={limit === null ? "" : String(limit)} placeholder="none; phone + PC: 3" write={(text) => write("macLimit", text)} />
      <TextField label="802.1X profile" value={shared(ports.map(({ guards }) => guards.profile)) ?? ""} placeholder="its name on the switch" write={(text) => write("profile", text)} />
    </Section>
  );
}
