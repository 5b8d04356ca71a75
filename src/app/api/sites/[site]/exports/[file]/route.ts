import { readExportContract } from "@/http/contracts/pass-contracts";
import { readExport } from "@/http/pass-use-cases";
import { machineRoute } from "@/http/route";

export const GET = machineRoute("GET /api/sites/[site]/exports/[file]", readExportContract, readExport);
