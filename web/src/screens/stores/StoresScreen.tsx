import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { api } from "../../api/client";
import type { Stock, StoreAbout } from "../../api/types";
import { ConflictStrip } from "../../ui/ConflictStrip";
import { PrintTitle } from "../../ui/PrintTitle";
import { SavedMark } from "../../ui/SavedMark";
import { useSettings } from "../../ui/settings";
import { TabBar } from "../../ui/TabBar";
import { TextField } from "../../ui/TextField";
import { TopBar } from "../../ui/TopBar";
import { useAddress } from "../../ui/useAddress";
import { useTitle } from "../../ui/useTitle";
import { useTrade } from "../../ui/useTrade";
import { useWrites } from "../../ui/useWrites";
import { render } from "../../units/text";
import { ArmatureShelf } from "./ArmatureShelf";
import type { Attempt } from "./attempt";
import { DeletedThings } from "./DeletedThings";
import { MechanicList } from "./MechanicList";
import { RemnantList } from "./RemnantList";
import { TableExchange } from "./TableExchange";
import { ThingTable } from "./ThingTable";
import { VesselShelf } from "./VesselShelf";

/** The stores: vessels drawn at one scale, netting, frogs, varieties; edit, copy, count, retire; tables in and out. */
export function StoresScreen() {
  const kinds = useTrade()?.stores;
  return kinds ? <Stores kinds={kinds} /> : <p role="status">Opening the stores…</p>;
}

function Stores({ kinds }: { kinds: readonly StoreAbout[] }) {
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const client = useQueryClient();
  const { system } = useSettings();
  const { send, saving, problem, conflict, forget } = useWrites();
  const [retired, setRetired] = useState(false);
  const [find, setFind] = useState("");
  const [part, setPart] = useAddress("part", [...kinds.map(({ kind }) => kind), "mechanic"] as const);
  useTitle("The stores");
  const fetchAnew = async () => {
    await client.invalidateQueries({ queryKey: ["stock"] });
    await client.invalidateQueries({ queryKey: ["remnants"] });
  };
  /** One write after the other; one that does not reach the program is tried again. Tells whether it went well. */
  const attempt: Attempt = async (does) => {
    let done = false;
    let known: Stock | undefined;
    await send(async (again) => {
      known ??= client.getQueryData<Stock>(["stock"]);
      if (!known) return;
      await does(again?.revision ?? revision(), again?.chosen ?? null, known);
      done = true;
      await fetchAnew();
    }, "each");
    return done;
  };
  const revision = () => client.getQueryData<Stock>(["stock"])?.revision ?? 0;
  const goBy = (way: "undo" | "redo") =>
    void send(
      async (again) => {
        client.setQueryData(["stock"], await api.travelStock(again?.revision ?? revision(), way));
        await client.invalidateQueries({ queryKey: ["remnants"] });
      },
      "once",
      way === "undo" ? "Undo all the same" : "Redo all the same",
    );
  return (
    <div className="flex h-full flex-col">
      <TopBar
        undo={stock.data?.undo ?? null}
        redo={stock.data?.redo ?? null}
        onUndo={() => goBy("undo")}
        onRedo={() => goBy("redo")}
      >
        <Link
          to="/?all"
          className="flex min-h-11 items-center text-soft underline decoration-line underline-offset-4"
        >
          Events
        </Link>
        <span className="text-line" aria-hidden="true">
          /
        </span>
        <h1 className="m-0 text-xl">The stores</h1>
        <Link
          to="/figures"
          className="ml-auto flex min-h-11 flex-none items-center underline decoration-line underline-offset-4"
        >
          Figures
        </Link>
        <input
          type="search"
          aria-label="Find by name"
          placeholder="Find by name"
          className="no-print h-11 w-40 rounded border border-line bg-sheet px-2"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <label className="no-print flex min-h-11 items-center gap-2 text-soft">
          <input
            type="checkbox"
            className="h-4 w-4 accent-leaf"
            checked={retired}
            onChange={(event) => setRetired(event.target.checked)}
          />
          show what is retired
        </label>
        {saving === "not saved" && <SavedMark saving={saving} />}
      </TopBar>
      <PrintTitle>The stores</PrintTitle>
      {conflict && (
        <ConflictStrip
          what="the stores"
          conflict={conflict}
          onTakeTheirs={() => {
            forget();
            void fetchAnew();
          }}
        />
      )}
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      <main className="flex min-h-0 flex-1 flex-col">
        <Tabs.Root
          value={part}
          onValueChange={(next) => setPart(next as typeof part)}
          className="flex min-h-0 flex-1 flex-col"
        >
          <TabBar
            label="Parts of the stores"
            tabs={[...kinds.map(({ kind, title }) => [kind, title] as const), ["mechanic", "Mechanics"]]}
            className="no-print flex-none border-b border-line px-3"
          />
          {kinds.map((about) => {
            const { kind, title } = about;
            return (
              <Tabs.Content key={kind} value={kind} className="min-h-0 flex-1 overflow-y-auto p-4">
                {!stock.data ? (
                  <p role="status">Opening the stores…</p>
                ) : (
                  <>
                    {kind === "vessel" ? (
                      <VesselShelf stock={stock.data} retired={retired} find={find} attempt={attempt} />
                    ) : kind === "armature" ? (
                      <ArmatureShelf stock={stock.data} retired={retired} find={find} attempt={attempt} />
                    ) : (
                      <ThingTable
                        about={about}
                        stock={stock.data}
                        retired={retired}
                        find={find}
                        problem={problem}
                        attempt={attempt}
                      />
                    )}
                    <DeletedThings kind={kind} stock={stock.data} attempt={attempt} />
                    {(kind === "netting" || kind === "supply") && (
                      <RemnantList material={kind} stock={stock.data} problem={problem} attempt={attempt} />
                    )}
                    {kind !== "armature" && (
                      <TextField
                        label="Prices in the stores are in"
                        value={stock.data.currency}
                        path="currency"
                        problem={problem}
                        onCommit={(currency) => void attempt((base) => api.putCurrency(base, currency))}
                        className="no-print mt-4 w-48"
                      />
                    )}
                    <TableExchange kind={kind} words={title} revision={revision} attempt={attempt} />
                  </>
                )}
              </Tabs.Content>
            );
          })}
          <Tabs.Content value="mechanic" className="min-h-0 flex-1 overflow-y-auto p-4">
            {stock.data && <MechanicList stock={stock.data} retired={retired} attempt={attempt} />}
          </Tabs.Content>
        </Tabs.Root>
      </main>
    </div>
  );
}
