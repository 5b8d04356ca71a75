import { addToRecordContract } from "@/http/contracts/record-contract";
import { readRecordContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { addToSiteRecord, readSiteRecord } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/record", readRecordContract, readSiteRecord);
export const POST = route("POST /api/sites/[site]/record", addToRecordContract, addToSiteRecord);
