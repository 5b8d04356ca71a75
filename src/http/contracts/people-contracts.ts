import { z } from "zod";
import { ROLES } from "@/application/roles";
import { contract, idText, noBody, nothing } from "./contract";
import { lastDay, passTitle } from "./pass-contracts";

const role = z.enum(ROLES);
const scope = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("all") }),
  z.strictObject({ kind: z.literal("customer"), id: idText }),
  z.strictObject({ kind: z.literal("site"), id: idText }),
]);
const customerName = z
  .string()
  .trim()
  .normalize("NFC")
  .min(1, "A customer has a name")
  .max(80, "A customer's name has at most 80 characters")
  .regex(/^[^\p{Cc}\p{Surrogate}]*$/u, "A name can't hold control characters");

export const readPeopleContract = contract({ params: nothing, query: nothing, body: noBody, maxBytes: 0 });

export const peopleContract = contract({
  params: nothing,
  query: nothing,
  maxBytes: 2_000,
  body: z.discriminatedUnion("do", [
    z.strictObject({ do: z.literal("grant"), person: idText, on: scope, role }),
    z.strictObject({ do: z.literal("withdraw"), person: idText, on: scope }),
    z.strictObject({ do: z.literal("invite"), person: idText.nullable(), on: scope, role }),
    z.strictObject({ do: z.literal("withdrawInvitation"), id: idText }),
    z.strictObject({ do: z.literal("makeToken"), title: passTitle, on: scope, lastDay }),
    z.strictObject({ do: z.literal("withdrawToken"), id: idText }),
    z.strictObject({ do: z.literal("takeOut"), person: idText, forgetName: z.boolean() }),
    z.strictObject({ do: z.literal("putCustomer"), id: idText, name: customerName }),
    z.strictObject({ do: z.literal("removeCustomer"), id: idText }),
    z.strictObject({ do: z.literal("moveSite"), site: idText, customer: idText.nullable() }),
  ]),
});

export const logContract = contract({
  params: nothing,
  query: z.strictObject({ before: z.coerce.number().int().min(1).max(Number.MAX_SAFE_INTEGER).optional() }),
  body: noBody,
  maxBytes: 0,
});
