import * as devices from "./devices";
import * as cables from "./cables";
import * as ports from "./ports";
import * as segments from "./segments";
import * as site from "./site";
import * as survey from "./survey";
import * as register from "./register";
import * as wireless from "./wireless";
import * as conduits from "./conduits";
import * as regions from "./regions";
import * as signIns from "./sign-ins";
import * as services from "./services";
import * as exceptions from "./exceptions";
import * as findings from "./findings";
import * as legs from "./legs";
import * as gateway from "./gateway";
import * as waysIn from "./ways-in";
import * as rules from "./rules";
import * as walls from "./walls";
import * as baseline from "./baseline";
import * as windows from "./windows";

/** Every command by what it is called in code. */
export const COMMANDS = {
  ...devices,
  ...cables,
  ...ports,
  ...segments,
  ...site,
  ...survey,
  ...register,
  ...wireless,
  ...conduits,
  ...signIns,
  ...regions,
  ...services,
  ...exceptions,
  ...findings,
  ...legs,
  ...gateway,
  ...waysIn,
  ...rules,
  ...baseline,
  ...windows,
  ...walls,
};
export type CommandName = keyof typeof COMMANDS;
