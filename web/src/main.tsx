import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import "@fontsource-variable/fraunces/index.css";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "./styles.css";
import { EventGate } from "./places/EventGate";
import { fetchPlaces, lazyPlace, Opening } from "./places/lazyPlace";
import { NothingHere } from "./places/NothingHere";
import { keepFocus } from "./ui/keepFocus";
import { Meaning } from "./ui/Meaning";
import { SettingsProvider } from "./ui/settings";
import { TourCard } from "./ui/TourCard";
import { TradeProvider } from "./ui/TradeProvider";

const BenchPlace = lazyPlace(() => import("./places/bench/BenchPlace").then((all) => all.BenchPlace));
const CostPlace = lazyPlace(() => import("./places/cost/CostPlace").then((all) => all.CostPlace));
const DayPlace = lazyPlace(() => import("./places/day/DayPlace").then((all) => all.DayPlace));
const EventPlace = lazyPlace(() => import("./places/line-up/EventPlace").then((all) => all.EventPlace));
const EventsPlace = lazyPlace(() => import("./places/line-up/EventsPlace").then((all) => all.EventsPlace));
const FiguresPlace = lazyPlace(() => import("./places/figures/FiguresPlace").then((all) => all.FiguresPlace));
const ListsPlace = lazyPlace(() => import("./places/lists/ListsPlace").then((all) => all.ListsPlace));
const RigPlace = lazyPlace(() => import("./places/rig/RigPlace").then((all) => all.RigPlace));
const RollPlace = lazyPlace(() => import("./places/roll/RollPlace").then((all) => all.RollPlace));
const StoresPlace = lazyPlace(() => import("./places/stores/StoresPlace").then((all) => all.StoresPlace));
const SurveyPlace = lazyPlace(() => import("./places/survey/SurveyPlace").then((all) => all.SurveyPlace));

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 0 } } });
const root = document.getElementById("root");
if (root) {
  keepFocus(root);
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <TradeProvider>
          <SettingsProvider>
            <BrowserRouter>
              <TourCard />
              <Meaning />
              <Suspense fallback={<Opening />}>
                <Routes>
                  <Route path="/" element={<EventsPlace />} />
                  <Route path="/events/:eventId" element={<EventGate />}>
                    <Route index element={<EventPlace />} />
                    <Route path="pieces/:pieceId" element={<BenchPlace />} />
                    <Route path="rigs/:rigId" element={<RigPlace />} />
                    <Route path="survey" element={<SurveyPlace />} />
                    <Route path="roll" element={<RollPlace />} />
                    <Route path="day" element={<DayPlace />} />
                    <Route path="lists" element={<ListsPlace />} />
                    <Route path="cost" element={<CostPlace />} />
                    <Route path="*" element={<NothingHere />} />
                  </Route>
                  <Route path="/stores" element={<StoresPlace />} />
                  <Route path="/figures" element={<FiguresPlace />} />
                  <Route path="*" element={<NothingHere />} />
                </Routes>
              </Suspense>
            </BrowserRouter>
          </SettingsProvider>
        </TradeProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
  addEventListener("load", () => setTimeout(fetchPlaces, 1000), { once: true });
}
