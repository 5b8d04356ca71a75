import { logContract } from "@/http/contracts/people-contracts";
import { route } from "@/http/route";
import { readLog } from "@/http/account-use-cases";

export const GET = route("GET /api/log", logContract, readLog);
