import { stateRoute } from "@/http/route";
import { isReady } from "@/http/use-cases";

export const GET = stateRoute("GET /readyz", isReady);
export const dynamic = "force-dynamic";
