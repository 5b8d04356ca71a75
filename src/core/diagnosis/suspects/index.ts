import type { PlanIndex, ProbeQuestion } from "../../plan";
import type { Sight } from "../sight";
import type { Suspect } from "../suspect";
import { addressingSuspects } from "./addressing";
import { cableSuspects } from "./cables";
import { gearSuspects, type Formerly } from "./gear";
import { hostSuspects } from "./hosts";
import { ipv6Suspects } from "./ipv6";
import { laptopSuspects } from "./laptops";
import { portSuspects } from "./ports";
import { wallSuspects } from "./walls";
import { wirelessSuspects } from "./wireless";

export type { Former, Formerly } from "./gear";
export { endsInSight } from "./walls";

/** All single faults in sight, each once. */
export function suspectsIn(
  index: PlanIndex,
  sight: Sight,
  { questions, formerly }: { readonly questions: readonly ProbeQuestion[]; readonly formerly: Formerly },
): Suspect[] {
  const all = [
    ...portSuspects(index, sight),
    ...cableSuspects(index, sight, questions),
    ...addressingSuspects(index, sight),
    ...hostSuspects(index, sight),
    ...wallSuspects(index, sight),
    ...gearSuspects(index, sight, formerly),
    ...wirelessSuspects(index, sight, questions),
    ...ipv6Suspects(index, sight, questions),
    ...laptopSuspects(questions),
  ];
  return [...new Map(all.map((suspect) => [suspect.id, suspect])).values()];
}
