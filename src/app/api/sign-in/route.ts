import { signInContract } from "@/http/contracts/account-contracts";
import { doorRoute } from "@/http/route";
import { signInNow } from "@/http/account-use-cases";

export const POST = doorRoute("POST /api/sign-in", signInContract, signInNow);
