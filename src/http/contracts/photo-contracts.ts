import { z } from "zod";
import { photoBytes } from "@/core/records";
import { idText, noBody, nothing, siteParams, type Contract } from "./contract";

const body = z.strictObject({ id: idText, jpeg: photoBytes });
const params = z.strictObject({ site: idText, photo: idText });
type Nothing = z.output<typeof nothing>;

export const addPhotoContract: Contract<z.output<typeof siteParams>, Nothing, z.output<typeof body>> = {
  params: siteParams,
  query: nothing,
  body,
  maxBytes: 300_000,
};

export const readPhotoContract: Contract<z.output<typeof params>, Nothing, null> = {
  params,
  query: nothing,
  body: noBody,
  maxBytes: 0,
};
