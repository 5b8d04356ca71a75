import { z } from "zod";
import { planFileSchema } from "./plan-file";

/** The plan file as JSON Schema (draft 2020-12), from the side that is written and read as text. */
export const planFileJsonSchema = (): unknown => ({
  $id: "urn:dianome:plan:1",
  title: "A network plan of one site",
  ...z.toJSONSchema(planFileSchema, { io: "input", unrepresentable: "any" }),
});
