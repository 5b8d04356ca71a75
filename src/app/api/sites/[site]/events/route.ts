import { eventsContract } from "@/http/contracts/live-contracts";
import { route } from "@/http/route";
import { siteEvents } from "@/http/live-use-cases";

export const GET = route("GET /api/sites/[site]/events", eventsContract, siteEvents);
