import { stepContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { redoLast } from "@/http/use-cases";

export const POST = route("POST /api/sites/[site]/redo", stepContract, redoLast);
