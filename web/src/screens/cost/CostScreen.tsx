import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventChange } from "../../api/types";
import { piecesOf, rigsOf } from "../../desk/change";
import { useEvent } from "../../desk/useEvent";
import { EventFrame } from "../../ui/EventFrame";
import { useSettings } from "../../ui/settings";
import { useWrites } from "../../ui/useWrites";
import { BudgetTool } from "./BudgetTool";
import { CostingFields } from "./CostingFields";
import { CostTable } from "./CostTable";
import { LastingTool } from "./LastingTool";
import { MixTool } from "./MixTool";
import { PriceStanding } from "./PriceStanding";
import { ScaleTool } from "./ScaleTool";

const SHEETS = [
  ["cost.pdf?reader=client", "Client's sheet, PDF"],
  ["cost.csv?reader=client", "Client's sheet, CSV"],
  ["cost.pdf?reader=studio", "Studio's sheet, PDF"],
  ["cost.csv?reader=studio", "Studio's sheet, CSV"],
] as const;

/** What the event costs and what to ask, and the tools for recipes. */
export function CostScreen() {
  const eventId = Number(useParams().eventId);
  const client = useQueryClient();
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const { send, problem, setProblem, conflict, forget } = useWrites();
  const [pieceId, setPieceId] = useState<number | null>(null);
  const { event: now, current, lay, reload } = useEvent(eventId);
  const cost = useQuery({ queryKey: ["cost", eventId], queryFn: () => api.cost(eventId) });
  const refused = cost.error instanceof Refused ? cost.error.problem : null;
  const again = async () => {
    await reload();
    await client.invalidateQueries({ queryKey: ["cost", eventId] });
  };
  /** One step back or forth at a time, each from where the one before it left the event. */
  const goBy = (does: (id: number, revision: number) => Promise<EventChange>, words: string) =>
    void send(
      async (again) => {
        await lay(await does(eventId, again?.revision ?? (await current())?.revision ?? 0), again);
        await client.invalidateQueries({ queryKey: ["cost", eventId] });
      },
      "once",
      words,
    );
  const paper = useSettings().system === "inch" ? "Letter" : "A4";
  const pieces = now ? piecesOf(now) : [];
  const chosen = pieces.find((each) => each.id === pieceId) ?? pieces[0];
  const scaled = now?.parts.find((each) => each.id === pieceId) ?? chosen ?? now?.parts[0];
  return (
    <EventFrame
      eventId={eventId}
      name={now?.brief.name ?? ""}
      title="Cost"
      problem={refused ?? problem}
      undo={now?.undo ?? null}
      redo={now?.redo ?? null}
      onUndo={() => goBy(api.undo, "Undo all the same")}
      onRedo={() => goBy(api.redo, "Redo all the same")}
      conflict={conflict}
      onTakeTheirs={() => {
        forget();
        void again();
      }}
    >
      <main className="min-h-0 flex-1 overflow-y-auto p-4 print:overflow-visible">
        {now && <CostingFields event={now} onSaved={() => void again()} />}
        {!cost.data && !refused && <p role="status">Reckoning…</p>}
        {cost.data && cost.data.cost.pieces.length > 0 && (
          <p className="no-print m-0 mb-2 flex flex-wrap gap-x-4">
            {SHEETS.map(([file, words]) => (
              <a key={file} className="link-action" href={`/api/events/${eventId}/${file}&paper=${paper}`}>
                {words}
              </a>
            ))}
          </p>
        )}
        {cost.data && (
          <CostTable
            cost={cost.data.cost}
            eventId={eventId}
            rigs={new Set((now ? rigsOf(now) : []).map((each) => each.id))}
          />
        )}
        {now && cost.data && cost.data.cost.pieces.length > 0 && (
          <PriceStanding event={now} cost={cost.data} onAct={goBy} />
        )}
        {now && (
          <section className="no-print mt-6">
            <h2 className="m-0 text-xl">Recipe tools</h2>
            <div className="mt-2 grid grid-cols-3 gap-6 max-lg:grid-cols-1">
              {scaled ? (
                <ScaleTool
                  key={scaled.id}
                  event={now}
                  chosen={scaled}
                  onChoose={setPieceId}
                  onProblem={setProblem}
                  problem={problem}
                  onSaved={() => void again()}
                />
              ) : (
                <p className="m-0 text-soft">Add a piece first, then its recipe can be scaled here.</p>
              )}
              <MixTool event={now} />
              {chosen && (
                <BudgetTool
                  key={chosen.id}
                  event={now}
                  chosen={chosen}
                  currency={now.brief.costing.currency}
                  nameOf={(key) => stock.data?.varieties[key]?.name ?? key}
                  onSaved={() => void again()}
                />
              )}
              {chosen && <LastingTool event={now} chosen={chosen} currency={now.brief.costing.currency} />}
            </div>
          </section>
        )}
      </main>
    </EventFrame>
  );
}
