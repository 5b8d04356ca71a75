import { z } from "zod";
import { changeBatchSchema } from "@/core/formats";
import { MOST_PLAN_BYTES, nothing, siteParams, type Contract } from "./contract";

const body = z.strictObject({ revision: z.int().min(0), batch: changeBatchSchema });

export const commitContract: Contract<z.output<typeof siteParams>, z.output<typeof nothing>, z.output<typeof body>> = {
  params: siteParams, query: nothing, body, maxBytes: MOST_PLAN_BYTES,
};
