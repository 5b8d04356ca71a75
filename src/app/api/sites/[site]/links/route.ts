import { linksContract, readLinksContract } from "@/http/contracts/pass-contracts";
import { changeLinks, readLinks } from "@/http/pass-use-cases";
import { route } from "@/http/route";

export const GET = route("GET /api/sites/[site]/links", readLinksContract, readLinks);
export const POST = route("POST /api/sites/[site]/links", linksContract, changeLinks);
