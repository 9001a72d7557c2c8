import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { Costing } from "../../api/types";
import { EventFrame } from "../../ui/EventFrame";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useRefusal } from "../../ui/useRefusal";
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
  const now = event.data;
  const again = async () => {
    await client.invalidateQueries({ queryKey: ["event", eventId] });
    await client.invalidateQueries({ queryKey: ["cost", eventId] });
  };
  const put = async (next: Partial<Costing>) => {
    if (!now) return;
    const costing = { ...now.brief.costing, ...next };
    await attempt(() => api.putBrief(eventId, now.revision, { ...now.brief, costing }));
    await again();
  };
  const goBy = (does: (id: number, revision: number) => Promise<unknown>) =>
    now && void attempt(() => does(eventId, now.revision)).then(again);
  const costing = now?.brief.costing;
  const pieces = now?.pieces ?? [];
  const chosen = pieces.find((each) => each.id === pieceId) ?? pieces[0];
  return (
    <EventFrame
      eventId={eventId}
      name={now?.brief.name ?? ""}
      title="Cost"
      problem={refused ?? (problem?.path.startsWith("costing") ? null : problem)}
      undo={now?.undo ?? null}
      redo={now?.redo ?? null}
      onUndo={() => goBy(api.undo)}
      onRedo={() => goBy(api.redo)}
    >
      <main className="min-h-0 flex-1 overflow-y-auto p-4 print:overflow-visible">
        {costing && (
          <div className="mb-4 grid max-w-4xl grid-cols-5 gap-3 max-md:grid-cols-2">
            <TextField
              label="Currency"
              value={costing.currency}
              path="costing.currency"
              problem={problem}
              onCommit={(currency) => void put({ currency: currency.trim() })}
            />
            <QuantityField
              label="An hour of work"
              kind="ratio"
              optional
              placeholder="not known"
              value={costing.rate_per_h === null ? null : Number(costing.rate_per_h)}
              path="costing.rate_per_h"
              problem={problem}
              onCommit={(rate) => void put({ rate_per_h: rate === null ? null : rate.toFixed(2) })}
            />
            <QuantityField
              label="Margin, of the price"
              kind="percent"
              value={costing.margin}
              path="costing.margin"
              problem={problem}
              onCommit={(margin) => margin !== null && void put({ margin })}
            />
            <QuantityField
              label="Stems bought beyond"
              kind="percent"
              value={costing.waste}
              path="costing.waste"
              problem={problem}
              onCommit={(waste) => waste !== null && void put({ waste })}
            />
            <QuantityField
              label="Mechanics are used"
              kind="count"
              optional
              placeholder="as each lasts"
              value={costing.uses}
              path="costing.uses"
              problem={problem}
              onCommit={(uses) => void put({ uses: uses === null ? null : Math.round(uses) })}
            />
          </div>
        )}
        {!cost.data && !refused && <p role="status">Reckoning…</p>}
        {cost.data && <CostTable cost={cost.data.cost} eventId={eventId} />}
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
