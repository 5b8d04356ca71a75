import { presenceContract } from "@/http/contracts/live-contracts";
import { route } from "@/http/route";
import { tellPresence } from "@/http/live-use-cases";

export const POST = route("POST /api/sites/[site]/presence", presenceContract, tellPresence);
