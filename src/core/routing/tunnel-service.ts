import type { Segment, Service } from "../plan";

/** The service by which a tunnel is asked for at the gateway's own address. */
export const tunnelService = ({ protocol, port }: NonNullable<Segment["tunnel"]>): Service => ({
  name: "vpn",
  protocol,
  ports: [[port, port]],
});
