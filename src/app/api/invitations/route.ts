import { letInContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { letIn } from "@/http/use-cases";

export const POST = route(letInContract, letIn);
