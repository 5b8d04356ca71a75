import { z } from "zod";
import { READERS } from "@/core/pack";
import { contract, idText, noBody, nothing, siteParams } from "./contract";

/** What a pass is called: whom or what it is for. */
export const passTitle = z
  .string()
  .trim()
  .normalize("NFC")
  .min(1, "Say whom it is for")
  .max(80, "That has at most 80 characters")
  .regex(/^[^\p{Cc}\p{Surrogate}]*$/u, "That can't hold control characters");
/** The last day on which it opens. */
export const lastDay = z.iso.date("A day is written as 2026-12-31");
const fileName = z
  .string()
  .trim()
  .min(1)
  .max(200)
  .regex(/^[^\p{Cc}\p{Surrogate}/\\]*$/u, "A file's name can't hold slashes or control characters");

export const readLinksContract = contract({ params: siteParams, query: nothing, body: noBody, maxBytes: 0 });
export const linksContract = contract({
  params: siteParams,
  query: nothing,
  maxBytes: 2_000,
  body: z.discriminatedUnion("do", [
    z.strictObject({
      do: z.literal("make"),
      issue: idText,
      reader: z.enum(READERS),
      title: passTitle,
      lastDay,
    }),
    z.strictObject({ do: z.literal("withdraw"), id: idText }),
  ]),
});

export const listExportsContract = contract({
  params: siteParams,
  query: nothing,
  body: noBody,
  maxBytes: 0,
});
export const readExportContract = contract({
  params: z.strictObject({ site: idText, file: fileName }),
  query: nothing,
  body: noBody,
  maxBytes: 0,
});
/** What somebody's browser saved, by its name. */
export const noteExportContract = contract({
  params: siteParams,
  query: nothing,
  maxBytes: 1_000,
  body: z.strictObject({ file: fileName }),
});

export const personDataContract = contract({
  params: z.strictObject({ person: idText }),
  query: nothing,
  body: noBody,
  maxBytes: 0,
});
