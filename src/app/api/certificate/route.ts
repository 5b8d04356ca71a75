import { certificateContract } from "@/http/contracts/account-contracts";
import { route } from "@/http/route";
import { certificate } from "@/http/use-cases";

export const GET = route("GET /api/certificate", certificateContract, certificate);
