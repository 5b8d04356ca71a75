import { stepContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { undoLast } from "@/http/use-cases";

export const POST = route("POST /api/sites/[site]/undo", stepContract, undoLast);
