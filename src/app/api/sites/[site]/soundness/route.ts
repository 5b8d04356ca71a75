import { ofSiteContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { readSoundness } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/soundness", ofSiteContract, readSoundness);
