import { peopleContract, readPeopleContract } from "@/http/contracts/people-contracts";
import { route } from "@/http/route";
import { orderPeople, readPeople } from "@/http/account-use-cases";

export const GET = route("GET /api/people", readPeopleContract, readPeople);
export const POST = route("POST /api/people", peopleContract, orderPeople);
