import { z } from "zod";
import { idField, longText, nameField, setField, shortText } from "./fields";

/** A time on the wall at the site, to the minute: 2026-12-05T18:00. */
const LOCAL_TIME = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d$/;
const localTimeField = z
  .string()
  .regex(LOCAL_TIME, "A time at the site is written as 2026-12-05T18:00")
  .refine((text) => {
    const day = text.slice(0, 10);
    const read = new Date(`${day}T00:00:00Z`);
    return day >= "1970-01-01" && !Number.isNaN(read.valueOf()) && read.toISOString().startsWith(day);
  }, "A day of the calendar from 1970 on");

/** A time in which work may stop those who else have to keep working. */
export const windowSchema = z.strictObject({
  id: idField,
  name: nameField,
  starts: localTimeField.meta({ description: "When it begins, in the site's time zone" }),
  minutes: z.int().min(5).max(10_080).meta({ description: "How long it is" }),
  segments: setField(z.array(idField).max(200)).meta({
    description: "Segments whose devices may be stopped then; empty: all",
  }),
  permit: shortText.meta({
    description: "The permit without which no work begins then, and who gives it; empty: none is needed",
  }),
  consent: shortText.meta({
    description: "Who answers for the process and has to agree first; empty: nobody has to",
  }),
  notes: longText,
});
export type Window = z.output<typeof windowSchema>;
