import { readDeviceContract } from "@/http/contracts/device-contracts";
import { ofSiteContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { readableDevices, readDeviceNow } from "@/http/use-cases";

export const GET = route("GET /api/sites/[site]/read-device", ofSiteContract, readableDevices);
export const POST = route("POST /api/sites/[site]/read-device", readDeviceContract, readDeviceNow);
