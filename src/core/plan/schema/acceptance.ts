import { z } from "zod";
import { dateField, idField, lineField, longText, shortText } from "./fields";

/**
 * A finding that somebody has decided to live with. It holds for the finding as it was read: one that says
 * something else wakes again.
 */
export const acceptanceSchema = z.strictObject({
  id: idField,
  finding: lineField(2000).min(1).meta({
    description: "Which finding: the check, and the ids of what it is about",
  }),
  says: longText.meta({ description: "What the finding said when it was accepted" }),
  reason: shortText.min(1, "An accepted finding has a reason"),
  by: shortText,
  until: dateField.nullable().meta({ description: "The last day on which it is accepted; null for always" }),
});
export type Acceptance = z.output<typeof acceptanceSchema>;
