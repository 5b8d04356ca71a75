import { stateRoute } from "@/http/route";
import { isAlive } from "@/http/use-cases";

export const GET = stateRoute("GET /healthz", isAlive);
export const dynamic = "force-dynamic";
