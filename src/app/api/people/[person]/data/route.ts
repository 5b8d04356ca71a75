import { readPersonData } from "@/http/account-use-cases";
import { personDataContract } from "@/http/contracts/pass-contracts";
import { route } from "@/http/route";

export const GET = route("GET /api/people/[person]/data", personDataContract, readPersonData);
