import { listExportsContract, noteExportContract } from "@/http/contracts/pass-contracts";
import { listSiteExports, noteSaved } from "@/http/pass-use-cases";
import { machineRoute, route } from "@/http/route";

export const GET = machineRoute("GET /api/sites/[site]/exports", listExportsContract, listSiteExports);
export const POST = route("POST /api/sites/[site]/exports", noteExportContract, noteSaved);
