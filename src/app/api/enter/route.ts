import { enterContract, signOutContract } from "@/http/contracts/account-contracts";
import { doorRoute, route } from "@/http/route";
import { comeIn, signOut } from "@/http/account-use-cases";

export const POST = doorRoute("POST /api/enter", enterContract, comeIn);
export const DELETE = route("DELETE /api/enter", signOutContract, signOut);
