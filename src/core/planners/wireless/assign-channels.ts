import type { Band, PlanEdits, PlanIndex } from "../../plan";
import { assignChannels } from "../../wireless";

/**
 * Gives every working radio of some bands the channel that suits its neighbours; one without any allowed
 * channel stays as it is.
 */
export function assignAllChannels(
  edits: PlanEdits,
  index: PlanIndex,
  bands: readonly Band[],
  useDfs: "with radar channels" | "without radar channels",
): void {
  for (const band of bands)
    for (const { radio, option } of assignChannels(index, band, useDfs))
      if (option !== null) edits.patch("radio", radio.id, { channel: option.channel });
}
