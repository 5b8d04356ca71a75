import { accountContract, readAccountContract } from "@/http/contracts/account-contracts";
import { route } from "@/http/route";
import { changeAccount, readAccount } from "@/http/account-use-cases";

export const GET = route("GET /api/account", readAccountContract, readAccount);
export const POST = route("POST /api/account", accountContract, changeAccount);
