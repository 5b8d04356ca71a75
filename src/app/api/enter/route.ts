import { enterContract, signOutContract } from "@/http/contracts/site-contracts";
import { doorRoute, route } from "@/http/route";
import { comeIn, signOut } from "@/http/use-cases";

export const POST = doorRoute(enterContract, comeIn);
export const DELETE = route(signOutContract, signOut);
