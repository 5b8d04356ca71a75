import { benchContract } from "@/http/contracts/device-contracts";
import { ofSiteContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { actOnBench, lookAtBench } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/stand-ins", ofSiteContract, lookAtBench);
export const POST = route("POST /api/sites/[site]/stand-ins", benchContract, actOnBench);
