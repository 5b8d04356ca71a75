import { addPhotoContract } from "@/http/contracts/photo-contracts";
import { route } from "@/http/route";
import { addSitePhoto } from "@/http/use-cases";

export const POST = route("POST /api/sites/[site]/photos", addPhotoContract, addSitePhoto);
