import { useEffect, useRef } from "react";
import type { DayOut } from "../../api/types";

/** When each task started on the sheet before the last change; null where nothing was changed since the place was opened. */
export type Before = ReadonlyMap<string, string> | null;

type Kept = { readonly revision: number; readonly at: ReadonlyMap<string, string>; readonly before: Before };

/** Remembers the sheet that was, so that what a change moved can be seen. */
export function useBefore(now: DayOut | undefined): Before {
  const kept = useRef<Kept | null>(null);
  useEffect(() => {
    if (!now?.day || now.running || kept.current?.revision === now.revision) return;
    const at = new Map(now.day.timed.map((each) => [each.task.key, each.starts_at] as const));
    kept.current = { revision: now.revision, at, before: kept.current?.at ?? null };
  }, [now]);
  if (!kept.current || !now) return null;
  return kept.current.revision === now.revision ? kept.current.before : kept.current.at;
}
