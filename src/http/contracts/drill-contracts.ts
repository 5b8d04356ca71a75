import { tryField } from "@/core/drills";
import { noBody, nothing } from "./contract";

export const readDrillsContract = { params: nothing, query: nothing, body: noBody, maxBytes: 0 };
export const addTryContract = { params: nothing, query: nothing, body: tryField, maxBytes: 2_000 };
