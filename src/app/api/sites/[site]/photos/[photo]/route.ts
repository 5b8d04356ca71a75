import { readPhotoContract } from "@/http/contracts/photo-contracts";
import { route } from "@/http/route";
import { readSitePhoto } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/photos/[photo]", readPhotoContract, readSitePhoto);
