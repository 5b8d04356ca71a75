import { ofSiteContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { deleteSite } from "@/http/use-cases";

export const DELETE = route("DELETE /api/sites/[site]", ofSiteContract, deleteSite);
