import { nameOf } from "../plan";
import {
  pasteServices as pasteServicesInto,
  removeServices as removeServicesIn,
  SERVICE_COLUMNS,
  type ServiceColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: ServiceColumn): string =>
  SERVICE_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const addService = command<{ readonly name: string; readonly is: string }>("add-service", {
  says: ({ name, is }) => `Service ${name}: ${is}`,
  run: (context, { name, is }) => pasteServicesInto(context, [[name, is]], "name", []),
});

export const writeService = command<{
  readonly service: string;
  readonly column: ServiceColumn;
  readonly text: string;
}>("write-service", {
  says: ({ service, column, text }, index) =>
    `Service ${nameOf(index, "service", service)}, ${columnWord(column)}: ${text || "nothing"}`,
  run: (context, { service, column, text }) => pasteServicesInto(context, [[text]], column, [service]),
});

export const pasteServices = command<Pasted<ServiceColumn>>("paste-services", {
  says: ({ rows }) => pasted(rows, "the services"),
  run: (context, { rows, from, onto }) => pasteServicesInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeServices = command<{ readonly services: readonly string[] }>("remove-services", {
  says: ({ services }, index) =>
    services.length === 1 && services[0] !== undefined
      ? `Removed the service ${nameOf(index, "service", services[0])}`
      : `Removed ${counted(services.length, "service", "services")}`,
  run: (context, { services }) => removeServicesIn(context, services),
});
