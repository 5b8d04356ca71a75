import { certificateContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { certificate } from "@/http/use-cases";

export const GET = route(certificateContract, certificate);
