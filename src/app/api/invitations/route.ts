import { letInContract } from "@/http/contracts/account-contracts";
import { route } from "@/http/route";
import { linkForOwn } from "@/http/account-use-cases";

export const POST = route("POST /api/invitations", letInContract, linkForOwn);
