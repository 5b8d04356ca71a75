import { expose } from "comlink";
import { DrillRoom } from "./drill-room";
import { courseFile } from "./drill-sites";

const room = new DrillRoom(courseFile);
export type DrillWorker = DrillRoom;

expose(room);
