import { addTryContract, readDrillsContract } from "@/http/contracts/drill-contracts";
import { route } from "@/http/route";
import { addDrillTry, readDrills } from "@/http/use-cases";

export const GET = route("GET /api/drills", readDrillsContract, readDrills);
export const POST = route("POST /api/drills", addTryContract, addDrillTry);
