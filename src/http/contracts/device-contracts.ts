import { z } from "zod";
import type { Asking, BenchAct } from "@/application/devices";
import type { Breath } from "@/core/formats";
import { MOST_PLAN_BYTES } from "@/core/records";
import { idText, nothing, siteParams, type Contract, type Misfit } from "./contract";
import { misfitOf, readChanges } from "./read-changes";

export type { BenchAnswer } from "@/application/devices";

// What is done on stand-in devices. What is found on them, and settings that are entered, are changes: they are
// read one by one.

const MOST_YANG = 16_000_000;

const actSchema = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("begin"), changes: z.array(z.unknown()) }),
  z.strictObject({ do: z.literal("plug"), port: idText.nullable() }),
  z.strictObject({ do: z.enum(["power", "powerCut", "reset"]), device: idText }),
  z.strictObject({
    do: z.literal("ask"),
    device: idText,
    asking: z.discriminatedUnion("what", [
      z.strictObject({ what: z.enum(["read", "save", "restart"]) }),
      z.strictObject({
        what: z.literal("enter"),
        says: z.literal(["yang", "settings"]),
        text: z.string().max(MOST_YANG).default(""),
        changes: z.array(z.unknown()).max(10_000).default([]),
      }),
    ]),
  }),
]);

async function readAct(value: unknown, breath: Breath): Promise<{ readonly value: BenchAct } | Misfit> {
  const read = actSchema.safeParse(value);
  if (!read.success) return misfitOf(read.error, []);
  const act = read.data;
  if (act.do === "begin") {
    const found = await readChanges(act.changes, ["changes"], breath);
    return "changes" in found ? { value: { do: "begin", changes: found.changes } } : found;
  }
  if (act.do !== "ask") return { value: act };
  const asking = await readAsking(act.asking, breath);
  return "asking" in asking ? { value: { ...act, asking: asking.asking } } : asking;
}

type AskingRead = Extract<z.output<typeof actSchema>, { do: "ask" }>["asking"];

async function readAsking(asking: AskingRead, breath: Breath): Promise<{ readonly asking: Asking } | Misfit> {
  if (asking.what !== "enter") return { asking };
  if (asking.says === "yang") return { asking: { what: "enter", says: "yang", text: asking.text } };
  const found = await readChanges(asking.changes, ["asking", "changes"], breath);
  return "changes" in found ? { asking: { what: "enter", says: "settings", changes: found.changes } } : found;
}

type OfSite = z.output<typeof siteParams>;
type Nothing = z.output<typeof nothing>;

export const benchContract: Contract<OfSite, Nothing, BenchAct> = {
  params: siteParams,
  query: nothing,
  body: { read: readAct },
  maxBytes: MOST_PLAN_BYTES,
};

const readingSchema = z.strictObject({
  address: z.string().min(1).max(300),
  user: z.string().max(200),
  password: z.string().max(400),
  fingerprint: z.string().max(200).default(""),
});
export const readDeviceContract: Contract<OfSite, Nothing, z.output<typeof readingSchema>> = {
  params: siteParams,
  query: nothing,
  body: readingSchema,
  maxBytes: 10_000,
};
