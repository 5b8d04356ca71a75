import { z } from "zod";
import { countField, idField, ipv4Field, longText, shortText } from "./fields";

/**
 * What the leaflet of a model says of gear as it comes out of its box; what nobody has read yet is unknown,
 * empty or null.
 */
export const leafletSchema = z.strictObject({
  id: idField,
  model: shortText.min(1, "A leaflet is of a model").meta({ description: "The model, as devices name it" }),
  addressing: z
    .enum(["unknown", "fixed", "dhcp"])
    .meta({ description: "How it comes to its first address: by itself, or from a DHCP server" }),
  address4: ipv4Field
    .nullable()
    .meta({ description: "Its first address; with dhcp the one it has where no server answers" }),
  length4: z.int().min(1).max(32).nullable().meta({ description: "The prefix length of that address" }),
  gives: z
    .enum(["unknown", "yes", "no"])
    .meta({ description: "Whether it is a DHCP server itself until that is switched off" }),
  opens: shortText.meta({ description: "What is opened first: a page, or the console with its settings" }),
  light: shortText.meta({ description: "Which light shows that it is ready" }),
  startSeconds: countField(7200).nullable().meta({ description: "How long it takes to start" }),
  resetSeconds: countField(600).nullable().meta({ description: "How long its button is held for a reset" }),
  restarts: z.boolean().meta({ description: "Takes a new address only with a restart" }),
  nameRule: z
    .enum(["any", "label"])
    .meta({ description: "label: letters, digits and hyphens only (RFC 1123 section 2.1)" }),
  nameMost: z.int().min(1).max(255).nullable().meta({ description: "The most characters of its name" }),
  notes: longText,
});
export type Leaflet = z.output<typeof leafletSchema>;
