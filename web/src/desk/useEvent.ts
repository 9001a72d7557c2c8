import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { api } from "../api/client";
import type { EventChange, EventOut } from "../api/types";
import type { Again } from "../ui/useWriteLine";
import { withChange } from "./change";

/** An event as this window knows it, and laying over it what a write has changed. */
export function useEvent(eventId: number) {
  const client = useQueryClient();
  const query = useQuery({ queryKey: ["event", eventId], queryFn: () => api.event(eventId) });
  const key = useMemo(() => ["event", eventId] as const, [eventId]);

  /** The event as it stands. What is still being fetched was read before: it is dropped, so that it never comes last. */
  const current = useCallback(async (): Promise<EventOut | undefined> => {
    await client.cancelQueries({ queryKey: key, exact: true });
    return client.getQueryData<EventOut>(key);
  }, [client, key]);

  /** Lay over what is known what a write tells; one sent again over another window's tells nothing of that: look anew. */
  const lay = useCallback(
    async (change: EventChange, again: Again | null = null) => {
      await client.cancelQueries({ queryKey: key, exact: true });
      client.setQueryData<EventOut>(key, (known) => known && withChange(known, change));
      if (again) void client.invalidateQueries({ queryKey: key });
      void client.invalidateQueries({ queryKey: ["standing", eventId] });
    },
    [client, eventId, key],
  );

  /** Look again, after something beside the plan has changed, or another window was first. */
  const reload = useCallback(async () => {
    await client.invalidateQueries({ queryKey: key });
    await client.invalidateQueries({ queryKey: ["standing", eventId] });
  }, [client, eventId, key]);

  return {
    event: query.data ?? null,
    error: query.error,
    fetching: query.isFetching,
    /** Another number whenever the event was read or changed. */
    readAt: query.dataUpdatedAt,
    current,
    lay,
    reload,
  };
}
