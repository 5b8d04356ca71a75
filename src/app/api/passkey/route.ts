import { passkeyAtDoor } from "@/http/account-use-cases";
import { passkeyContract } from "@/http/contracts/account-contracts";
import { doorRoute } from "@/http/route";

export const POST = doorRoute("POST /api/passkey", passkeyContract, passkeyAtDoor);
