import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventOut } from "../../api/types";
import { EventFrame } from "../../ui/EventFrame";
import { useRefusal } from "../../ui/useRefusal";
import { CostingFields } from "./CostingFields";
import { CostTable } from "./CostTable";
import { LastingTool } from "./LastingTool";
import { MixTool } from "./MixTool";
import { ScaleTool } from "./ScaleTool";

/** What the event costs and what to ask, and the tools for recipes. */
export function CostPlace() {
  const eventId = Number(useParams().eventId);
  const client = useQueryClient();
  const { problem, attempt, setProblem } = useRefusal();
  const [pieceId, setPieceId] = useState<number | null>(null);
  const event = useQuery({ queryKey: ["event", eventId], queryFn: () => api.event(eventId) });
  const cost = useQuery({ queryKey: ["cost", eventId], queryFn: () => api.cost(eventId) });
  const refused = cost.error instanceof Refused ? cost.error.problem : null;
  const steps = useRef<Promise<void>>(Promise.resolve());
  const now = event.data;
  const again = async () => {
    await client.invalidateQueries({ queryKey: ["event", eventId] });
    await client.invalidateQueries({ queryKey: ["cost", eventId] });
  };
  /** One step back or forth at a time, each from where the one before it left the event. */
  const goBy = (does: (id: number, revision: number) => Promise<EventOut>) => {
    steps.current = steps.current.then(async () => {
      const kept = client.getQueryData<EventOut>(["event", eventId]);
      const next = kept && (await attempt(() => does(eventId, kept.revision)));
      if (next) client.setQueryData(["event", eventId], next);
      await again();
    });
  };
  const pieces = now?.pieces ?? [];
  const chosen = pieces.find((each) => each.id === pieceId) ?? pieces[0];
  return (
    <EventFrame
      eventId={eventId}
      name={now?.brief.name ?? ""}
      title="Cost"
      problem={refused ?? problem}
      undo={now?.undo ?? null}
      redo={now?.redo ?? null}
      onUndo={() => goBy(api.undo)}
      onRedo={() => goBy(api.redo)}
    >
      <main className="min-h-0 flex-1 overflow-y-auto p-4 print:overflow-visible">
        {now && <CostingFields event={now} onSaved={() => void again()} />}
        {!cost.data && !refused && <p role="status">Reckoning…</p>}
        {cost.data && (
          <CostTable
            cost={cost.data.cost}
            eventId={eventId}
            rigs={new Set(now?.rigs.map((each) => each.id))}
          />
        )}
        {now && (
          <section className="no-print mt-6">
            <h2 className="m-0 text-xl">Recipe tools</h2>
            <div className="mt-2 grid grid-cols-3 gap-6 max-lg:grid-cols-1">
              {chosen ? (
                <ScaleTool
                  key={chosen.id}
                  event={now}
                  chosen={chosen}
                  onChoose={setPieceId}
                  onProblem={setProblem}
                  problem={problem}
                  onSaved={() => void again()}
                />
              ) : (
                <p className="m-0 text-soft">Add a piece first, then its recipe can be scaled here.</p>
              )}
              <MixTool event={now} />
              {chosen && <LastingTool event={now} chosen={chosen} currency={now.brief.costing.currency} />}
            </div>
          </section>
        )}
      </main>
    </EventFrame>
  );
}
