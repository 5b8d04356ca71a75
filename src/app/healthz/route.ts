import { stateRoute } from "@/http/route";
import { isAlive } from "@/http/use-cases";

export const GET = stateRoute(isAlive);
export const dynamic = "force-dynamic";
