import { createSiteContract, listSitesContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { addSite, listSites } from "@/http/use-cases";

export const GET = route("GET /api/sites", listSitesContract, listSites);
export const POST = route("POST /api/sites", createSiteContract, addSite);
