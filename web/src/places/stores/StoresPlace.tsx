import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { api, Refused } from "../../api/client";
import type { Problem, StoreKind } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { TopBar } from "../../ui/TopBar";
import { render } from "../../units/text";
import { MechanicList } from "./MechanicList";
import { RemnantList } from "./RemnantList";
import { TableExchange } from "./TableExchange";
import { ThingTable } from "./ThingTable";
import { VesselShelf } from "./VesselShelf";

const KINDS: readonly (readonly [StoreKind, string])[] = [
  ["vessel", "Vessels"],
  ["netting", "Netting"],
  ["frog", "Frogs"],
  ["variety", "Varieties"],
  ["supply", "Supplies"],
];

/** The stores: vessels drawn at one scale, netting, frogs, varieties; edit, copy, count, retire; tables in and out. */
export function StoresPlace() {
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const client = useQueryClient();
  const { system } = useSettings();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [retired, setRetired] = useState(false);
  const attempt = async (act: () => Promise<unknown>) => {
    try {
      await act();
      setProblem(null);
      await client.invalidateQueries({ queryKey: ["stock"] });
      return true;
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
      return false;
    }
  };
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <Link
          to="/?all"
          className="flex min-h-[44px] items-center text-soft underline decoration-line underline-offset-4"
        >
          Events
        </Link>
        <span className="text-line" aria-hidden="true">
          /
        </span>
        <h1 className="m-0 text-xl">The stores</h1>
        <label className="no-print ml-auto flex items-center gap-2 text-soft">
          <input
            type="checkbox"
            className="h-4 w-4 accent-leaf"
            checked={retired}
            onChange={(event) => setRetired(event.target.checked)}
          />
          show what is retired
        </label>
      </TopBar>
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      <Tabs.Root defaultValue="vessel" className="flex min-h-0 flex-1 flex-col">
        <Tabs.List
          aria-label="Parts of the stores"
          className="no-print flex flex-none gap-1 border-b border-line px-3"
        >
          {KINDS.map(([kind, words]) => (
            <Tabs.Trigger
              key={kind}
              value={kind}
              className="serif min-h-[44px] border-0 border-b-[3px] border-transparent bg-transparent px-3 text-[16px] text-soft data-[state=active]:border-leaf data-[state=active]:text-ink"
            >
              {words}
            </Tabs.Trigger>
          ))}
          <Tabs.Trigger
            value="mechanic"
            className="serif min-h-[44px] border-0 border-b-[3px] border-transparent bg-transparent px-3 text-[16px] text-soft data-[state=active]:border-leaf data-[state=active]:text-ink"
          >
            Mechanics
          </Tabs.Trigger>
        </Tabs.List>
        {KINDS.map(([kind, words]) => (
          <Tabs.Content key={kind} value={kind} className="min-h-0 flex-1 overflow-y-auto p-4">
            {!stock.data ? (
              <p role="status">Opening the stores…</p>
            ) : (
              <>
                {kind === "vessel" ? (
                  <VesselShelf stock={stock.data} retired={retired} attempt={attempt} />
                ) : (
                  <ThingTable
                    kind={kind}
                    stock={stock.data}
                    retired={retired}
                    problem={problem}
                    attempt={attempt}
                  />
                )}
                {(kind === "netting" || kind === "supply") && (
                  <RemnantList material={kind} stock={stock.data} />
                )}
                <TableExchange kind={kind} words={words} onDone={() => void attempt(async () => undefined)} />
              </>
            )}
          </Tabs.Content>
        ))}
        <Tabs.Content value="mechanic" className="min-h-0 flex-1 overflow-y-auto p-4">
          {stock.data && <MechanicList stock={stock.data} retired={retired} attempt={attempt} />}
        </Tabs.Content>
      </Tabs.Root>
    </div>
  );
}
