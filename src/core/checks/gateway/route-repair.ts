import { formatAddress, formatPrefix } from "../../address";
import { nameOf, type PlanIndex, type Route } from "../../plan";
import type { Repair } from "../../repairs";

/** A route's subnet and next hop: what tells it from a device's others. */
export const routeText = ({ prefix, via }: Route): string =>
  `${formatPrefix(prefix)} by ${formatAddress(via)}`;

/** Takes one route from a device. */
export const withoutRoute = (index: PlanIndex, device: string, route: Route): Repair => ({
  label: `Remove the route for ${routeText(route)} from ${nameOf(index, "device", device)}`,
  planner: "remove-routes",
  args: { device, route: routeText(route) },
  edit: (edits) => {
    const { routes } = edits.need("device", device);
    edits.patch("device", device, {
      routes: routes.filter((other) => routeText(other) !== routeText(route)),
    });
  },
});
