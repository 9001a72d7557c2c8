import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import type { Problem } from "../api/types";
import { useSettings } from "../ui/settings";
import { TopBar } from "../ui/TopBar";
import { render } from "../units/text";

type Props = { eventId: number; words: string; problem: Problem | null };

/** Before an event is there: how far its pieces are worked out, or why it cannot be shown. */
export function SettingOut({ eventId, words, problem }: Props) {
  const { system } = useSettings();
  const judging = useQuery({
    queryKey: ["judging", eventId],
    queryFn: () => api.judging(eventId),
    refetchInterval: 300,
    enabled: problem === null,
    retry: false,
  });
  const { done, of } = judging.data ?? { done: 0, of: 0 };
  return (
    <>
      <TopBar />
      <p className="p-6" role="status">
        {problem ? `${render(problem.message, system)} ${render(problem.limit, system)}` : words}
        {!problem && of > 0 && (
          <>
            {" "}
            {done} of {of} worked out.
            <progress className="mt-3 block w-72 accent-leaf" max={of} value={done} aria-label="How far" />
          </>
        )}
      </p>
    </>
  );
}
