import type { Finding } from "@/core/checks";
import type { Subject } from "@/core/repairs";
import type { EntityOf, Kind, PlanIndex } from "@/core/plan";
import { usePlan, usePlanStore } from "../plan-store/use-plan";
import type { Selection } from "./ui-state";
import { useUiStore } from "./use-ui";
import { showView, type ViewKey } from "./views";

/** A device of a model, in whose margin its leaflet is written. */
function ofModel(index: PlanIndex, model: string): Selection | null {
  const device = [...index.plan.device.values()].find((device) => device.model === model);
  return device === undefined ? null : { what: "device", id: device.id };
}

const wallSelection = (wall: EntityOf<"wall"> | undefined): Selection | null =>
  wall === undefined ? null : { what: "wall", from: wall.from, to: wall.to };

/** Where an entity is at home: the view that shows it and the selection that names it there. */
function homeOf(index: PlanIndex, kind: Kind, id: string): { view: ViewKey; selection: Selection | null } {
  const { plan } = index;
  switch (kind) {
    case "room":
    case "gear":
    case "line":
      return { view: "survey", selection: { what: kind, id } };
    case "segment":
      return { view: "segments", selection: { what: "segment", id } };
    case "scope":
      return { view: "segments", selection: { what: "segment", id: plan.scope.get(id)?.segment ?? "" } };
    case "ssid":
      return { view: "wireless", selection: { what: "ssid", id } };
    case "radio":
      return { view: "wireless", selection: { what: "device", id: plan.radio.get(id)?.device ?? "" } };
    case "lag":
      return { view: "hardware", selection: { what: "device", id: plan.lag.get(id)?.device ?? "" } };
    case "host":
    case "interface":
      return { view: "addresses", selection: { what: kind, id } };
    case "device":
    case "link":
      return { view: "hardware", selection: { what: kind, id } };
    case "window":
      return { view: "runbook", selection: { what: "window", id } };
    case "leaflet":
      return { view: "hardware", selection: ofModel(index, plan.leaflet.get(id)?.model ?? "") };
    case "port":
      return {
        view: "ports",
        selection: { what: "ports", device: plan.port.get(id)?.device ?? "", ids: [id] },
      };
    case "wall":
      return { view: "walls", selection: wallSelection(plan.wall.get(id)) };
    case "rule":
    case "exception":
    case "service":
    case "conduit":
      return { view: "walls", selection: { what: kind, id } };
    case "zone":
      return {
        view: "walls",
        selection: { what: "wall", from: { at: "zone", zone: id }, to: { at: "zone", zone: id } },
      };
    case "forward":
      return { view: "gateway", selection: { what: "forward", id } };
    case "wish":
      return { view: "gateway", selection: { what: "wish", id, way: null } };
    case "signIn":
      return { view: "guards", selection: { what: "signIn", id } };
    case "expectation":
      return { view: "probe", selection: null };
    default:
      return { view: "segments", selection: null };
  }
}

/** Goes to a view, or to the home of something in the plan. */
export function useGoTo() {
  const site = usePlan((state) => state.site);
  const store = usePlanStore();
  const ui = useUiStore();
  const view = (key: ViewKey) => showView(site, key);
  const entity = ({ kind, id }: Subject) => {
    const index = store.getState().held?.index;
    if (index === undefined) return;
    const home = homeOf(index, kind, id);
    ui.getState().select(home.selection);
    view(home.view);
  };
  const finding = (found: Finding) => {
    const index = store.getState().held?.index;
    if (index === undefined) return;
    const homes = found.subjects.map(({ kind, id }) => homeOf(index, kind, id));
    // A finding is looked at on its own sheet, whatever else its subjects stand on.
    const home = homes.find((home) => home.view === found.family) ?? homes[0];
    ui.getState().select(home?.selection ?? null);
    view(found.family);
  };
  return { view, entity, finding };
}
