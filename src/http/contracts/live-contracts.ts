import { z } from "zod";
import { contract, idText, noBody, nothing, siteParams } from "./contract";

/** As many things are told that somebody has selected. */
export const MOST_THINGS = 48;

export const eventsContract = contract({ params: siteParams, query: nothing, body: noBody, maxBytes: 0 });

export const presenceContract = contract({
  params: siteParams,
  query: nothing,
  maxBytes: 4_000,
  body: z.discriminatedUnion("is", [
    z.strictObject({
      is: z.literal("here"),
      tab: idText,
      sheet: z.string().regex(/^[a-z]{1,20}$/, "A sheet by its word in the address"),
      things: z.array(idText).max(MOST_THINGS),
    }),
    z.strictObject({ is: z.literal("gone"), tab: idText }),
  ]),
});
