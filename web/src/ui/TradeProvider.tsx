import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useMemo } from "react";
import { api } from "../api/client";
import { TradeContext } from "./useTrade";

const AGAIN_MS = 3000;

/** Asks once what the program describes, again only until it has answered, and tells every field of it. */
export function TradeProvider({ children }: { children: ReactNode }) {
  const { data: trade } = useQuery({
    queryKey: ["trade"],
    queryFn: api.trade,
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: ({ state }) => (state.data ? false : AGAIN_MS),
  });
  const described = useMemo(
    () =>
      trade && {
        trade,
        kit: {
          heads: Object.fromEntries(trade.heads.map((each) => [each.form, each])),
          outlines: Object.fromEntries(trade.shapes.map((each) => [each.kind, each.outline])),
        },
      },
    [trade],
  );
  return <TradeContext value={described}>{children}</TradeContext>;
}
