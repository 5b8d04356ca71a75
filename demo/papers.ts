import type { Paper } from "../src/core/plan";

// Telephone numbers are of the range that is kept for made-up ones.
const FIRM = "Ruth and Marek, network installation\n3 Weir Lane\nTelephone 01632 960 104";

/** What stands on the papers of the home. */
export const HOME_PAPER: Paper = {
  firm: FIRM,
  customer: "The lockkeeper's family\nAsk for Nell, telephone 01632 960 131",
  agreed:
    "The studio, the lodger's flat and the household are kept apart. Visitors get to the internet and " +
    "nowhere " +
    "else. When the fibre line fails, the mobile line takes over by itself; cameras then record at home only.",
  calls:
    "Nothing gets to the internet: look whether the gateway in the hall has its lights on, then wait five " +
    "minutes.\nOnly one room is dead: look whether its switch has power.\nElse call us, 01632 960 104.",
  linkBase: "",
};

/** What stands on the papers of the practice. */
export const PRACTICE_PAPER: Paper = {
  firm: FIRM,
  customer: "Fennel Street Veterinary Practice\nPractice manager: Imogen, telephone 01632 960 187",
  agreed:
    "Every consult room has a telephone with a computer behind it. Visitors in the waiting room get to the " +
    "internet and to nothing of the practice. Card terminals and imaging are kept apart from everything " +
    "else. Every change is agreed with the practice manager first.",
  calls:
    "No telephone works: look whether the switch in cabinet A has its lights on.\nOne computer has no " +
    "connection: plug it into another socket and tell us which one failed.\nEverything else: call us, 01632 " +
    "960 104, and say what no longer works and since when.",
  linkBase: "https://plans.example.net",
};

/** What stands on the papers of the works. */
export const WORKS_PAPER: Paper = {
  firm: FIRM,
  customer: "Bramblewick Cider Works\nShift engineer, telephone 01632 960 152\nOffice, 01632 960 150",
  agreed:
    "Each line of the works is a cell of its own. The ring carries on when one cable is cut. Suppliers come " +
    "in only when the shift engineer lets them in. The safety network is never joined to any other.",
  calls:
    "A line has stopped: the shift engineer decides; do not unplug anything.\nA switch is dark: look at its " +
    "two feeds first.\nThe ring runs on its spare way: nothing has stopped, but call us, 01632 960 104.",
  linkBase: "https://plans.example.net",
};
