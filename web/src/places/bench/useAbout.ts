import { useQuery } from "@tanstack/react-query";
import { api } from "../../api/client";
import type { MechanicKind, Trade } from "../../api/types";

export type About = Trade["mechanics"][number];

/** Every kind of mechanic as the program describes it; it never changes while the program runs. */
export function useMechanics(): readonly About[] {
  const trade = useQuery({ queryKey: ["trade"], queryFn: api.trade, staleTime: Number.POSITIVE_INFINITY });
  return trade.data?.mechanics ?? [];
}

/** What the program says of one kind of mechanic; undefined until it has. */
export function useAbout(kind: MechanicKind): About | undefined {
  return useMechanics().find((each) => each.kind === kind);
}
