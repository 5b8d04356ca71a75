import { touchedContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { readTouched } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/touched", touchedContract, readTouched);
