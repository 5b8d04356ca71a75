import { ofSiteContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { openPlan } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/plan", ofSiteContract, openPlan);
