import { historyContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { readHistory } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/history", historyContract, readHistory);
