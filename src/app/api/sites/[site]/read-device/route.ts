import { readDeviceContract } from "@/http/contracts/device-contracts";
import { ofSiteContract } from "@/http/contracts/site-contracts";
import { route } from "@/http/route";
import { readableDevices, readDeviceNow } from "@/http/use-cases";

export const GET = route(ofSiteContract, readableDevices);
export const POST = route(readDeviceContract, readDeviceNow);
