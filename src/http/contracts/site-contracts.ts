import { z } from "zod";
import { SCHEMAS } from "@/core/plan";
import { MOST_FILE_BYTES } from "@/core/records";
import { contract, idText, noBody, nothing, siteParams } from "./contract";

const name = z.string().trim().pipe(SCHEMAS.site.shape.name);
const revision = z.coerce.number().int().min(0).max(4_000_000_000);

export const listSitesContract = contract({ params: nothing, query: nothing, body: noBody, maxBytes: 0 });

/** The folder that a new site lies in; null for none. */
const customer = idText.nullable().default(null);
export const createSiteContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: MOST_FILE_BYTES,
  body: z.discriminatedUnion("by", [
    z.strictObject({
      by: z.literal("name"),
      id: idText,
      name,
      kind: z.enum(["home", "office", "industrial"]),
      timeZone: SCHEMAS.site.shape.timeZone,
      customer,
    }),
    z.strictObject({ by: z.literal("file"), id: idText, batch: idText, file: z.unknown(), customer }),
  ]),
});

/** What is done with a deleted site. */
export const binContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: 1000,
  body: z.strictObject({ site: idText, do: z.enum(["bringBack", "forget"]) }),
});

/** What is asked of a site, or done with it, without anything more to say. */
export const ofSiteContract = contract({ params: siteParams, query: nothing, body: noBody, maxBytes: 0 });
export const newsContract = contract({
  params: siteParams,
  query: z.strictObject({ after: revision }),
  body: noBody,
  maxBytes: 0,
});
/** As many things as a device has ports and addresses. */
const ID_LIST = /^[\da-f-]{36}(,[\da-f-]{36}){0,199}$/;
const idList = z
  .string()
  .regex(ID_LIST, "Ids with commas between them, at most 200")
  .transform((list) => list.split(","));
const instantText = z.iso.datetime({ precision: 3 });
export const historyContract = contract({
  params: siteParams,
  query: z.strictObject({
    before: revision,
    /** Ids with commas between them: what touched any of these. */
    about: idList.optional(),
    by: z.string().min(1).max(80).optional(),
    from: instantText.optional(),
    until: instantText.optional(),
  }),
  body: noBody,
  maxBytes: 0,
});
/** What was done to any of these things. */
export const touchedContract = contract({
  params: siteParams,
  query: z.strictObject({ before: revision, about: idList }),
  body: noBody,
  maxBytes: 0,
});
export const readRecordContract = contract({
  params: siteParams,
  query: z.strictObject({ after: revision }),
  body: noBody,
  maxBytes: 0,
});
/** `settled`: whose value a person has chosen where the step met what somebody changed since. */
export const stepContract = contract({
  params: siteParams,
  query: nothing,
  maxBytes: 1_000_000,
  body: z.strictObject({
    id: idText,
    settled: z
      .array(
        z.strictObject({
          id: idText,
          field: z.string().max(60).nullable(),
          keep: z.enum(["mine", "theirs"]),
        }),
      )
      .max(5000)
      .default([]),
  }),
});
