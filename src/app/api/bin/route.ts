import { binContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { withBin } from "@/http/use-cases";

export const POST = route("POST /api/bin", binContract, withBin);
