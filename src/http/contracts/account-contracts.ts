import { z } from "zod";
import { contract, type BodyOf, idText, noBody, nothing } from "./contract";
import { passTitle } from "./pass-contracts";

/** A name as it stands in the title block and the history. */
const personName = z
  .string()
  .trim()
  .normalize("NFC")
  .min(1, "Write your name; it stands in the title block and in the history")
  .max(40, "A name has at most 40 characters")
  .regex(/^[^\p{Cc}\p{Surrogate}]*$/u, "A name can't hold control characters");

const LEAST = 12;
/** A password that is set; length is what makes it hard to guess. */
const newPassword = z
  .string()
  .min(LEAST, `A password has at least ${LEAST} characters: several words do well`)
  .max(200, "A password has at most 200 characters")
  .refine((text) => new Set(text).size >= 5, "A password has at least five different characters");
/** One that is held against what is known: any text. */
const password = z.string().max(200);
const code = z.string().max(40);

/** What a one-time link is opened with: nothing more, or the name and the password of a new account. */
export const enterContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: 2_000,
  body: z.strictObject({
    key: z.string().min(1).max(100),
    name: personName.nullable().default(null),
    password: newPassword.nullable().default(null),
  }),
});

export const signInContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: 2_000,
  body: z.strictObject({
    name: z.string().trim().normalize("NFC").max(40),
    password,
    code: code.nullable().default(null),
  }),
});

export const signOutContract = contract({ params: nothing, query: nothing, body: noBody, maxBytes: 0 });
export const letInContract = contract({ params: nothing, query: nothing, body: noBody, maxBytes: 0 });
export const certificateContract = contract({ params: nothing, query: nothing, body: noBody, maxBytes: 0 });
export const readAccountContract = contract({ params: nothing, query: nothing, body: noBody, maxBytes: 0 });

/** What a browser answers with a key (Web Authentication): its parts are read by whoever checks it. */
const keyAnswer = z.looseObject({ id: z.string().min(1).max(1400) });

/** At the door: what to sign, and what was signed. */
export const passkeyContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: 20_000,
  body: z.discriminatedUnion("do", [
    z.strictObject({ do: z.literal("ask") }),
    z.strictObject({ do: z.literal("prove"), answer: keyAnswer }),
  ]),
});

export const accountContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: 20_000,
  body: z.discriminatedUnion("do", [
    z.strictObject({ do: z.literal("password"), old: password, password: newPassword }),
    z.strictObject({ do: z.literal("newSecret") }),
    z.strictObject({
      do: z.literal("factor"),
      password,
      secret: z.string().regex(/^[A-Z2-7]{32}$/, "The secret of a second factor has 32 letters and digits"),
      code,
    }),
    z.strictObject({ do: z.literal("noFactor"), password }),
    z.strictObject({ do: z.literal("endSession"), id: idText.nullable() }),
    z.strictObject({ do: z.literal("beginPasskey"), password }),
    z.strictObject({ do: z.literal("addPasskey"), title: passTitle, answer: keyAnswer }),
    z.strictObject({ do: z.literal("removePasskey"), id: idText }),
  ]),
});
export type AccountBody = BodyOf<typeof accountContract>;
