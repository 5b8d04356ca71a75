import { enterContract } from "@/http/contracts/site-contracts";
import { doorRoute } from "@/http/route";
import { comeIn } from "@/http/use-cases";

export const POST = doorRoute(enterContract, comeIn);
