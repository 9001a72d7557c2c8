import { useQuery } from "@tanstack/react-query";
import { Outlet, useParams } from "react-router";
import { api, Refused } from "../api/client";
import { useSettings } from "../ui/settings";
import { render } from "../units/text";
import { NothingHere } from "./NothingHere";

/** All places of an event, where there is such an event. */
export function EventGate() {
  const { eventId = "" } = useParams();
  const { system } = useSettings();
  const known = /^[1-9]\d{0,14}$/.test(eventId);
  const { error } = useQuery({
    queryKey: ["event", Number(eventId)],
    queryFn: () => api.event(Number(eventId)),
    enabled: known,
  });
  if (!known) return <NothingHere />;
  if (error instanceof Refused && error.problem.code === "not_found") {
    return (
      <NothingHere what={`${render(error.problem.message, system)} ${render(error.problem.limit, system)}`} />
    );
  }
  return <Outlet />;
}
