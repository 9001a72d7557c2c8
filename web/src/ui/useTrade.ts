import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import type { MechanicKind, Trade } from "../api/types";

type About = Trade["mechanics"][number];
type AboutLine = Trade["lines"][number];

/** What can be chosen, as the program describes it; it never changes while the program runs. */
export function useTrade(): Trade | undefined {
  return useQuery({ queryKey: ["trade"], queryFn: api.trade, staleTime: Number.POSITIVE_INFINITY }).data;
}

export function useMechanics(): readonly About[] {
  return useTrade()?.mechanics ?? [];
}

/** What the program says of one kind of mechanic; undefined until it has. */
export function useAbout(kind: MechanicKind): About | undefined {
  return useMechanics().find((each) => each.kind === kind);
}

/** Every kind of line with its fittings. */
export function useLines(): readonly AboutLine[] {
  return useTrade()?.lines ?? [];
}
