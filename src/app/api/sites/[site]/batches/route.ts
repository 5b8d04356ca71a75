import { commitContract } from "@/http/contracts/commit-contract";
import { newsContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { commit, readNews } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/batches", newsContract, readNews);
export const POST = route("POST /api/sites/[site]/batches", commitContract, commit);
