import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import "@fontsource-variable/fraunces/index.css";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "./styles.css";
import { EventGate } from "./screens/EventGate";
import { fetchPlaces, lazyScreen, Opening } from "./screens/lazyScreen";
import { NothingHere } from "./screens/NothingHere";
import { keepFocus } from "./ui/keepFocus";
import { Meaning } from "./ui/Meaning";
import { SettingsProvider } from "./ui/settings";
import { TourCard } from "./ui/TourCard";
import { TradeProvider } from "./ui/TradeProvider";

const BenchScreen = lazyScreen(() => import("./screens/bench/BenchScreen").then((all) => all.BenchScreen));
const CostScreen = lazyScreen(() => import("./screens/cost/CostScreen").then((all) => all.CostScreen));
const DayScreen = lazyScreen(() => import("./screens/day/DayScreen").then((all) => all.DayScreen));
const EventScreen = lazyScreen(() => import("./screens/line-up/EventScreen").then((all) => all.EventScreen));
const EventsScreen = lazyScreen(() =>
  import("./screens/line-up/EventsScreen").then((all) => all.EventsScreen),
);
const FiguresScreen = lazyScreen(() =>
  import("./screens/figures/FiguresScreen").then((all) => all.FiguresScreen),
);
const ListsScreen = lazyScreen(() => import("./screens/lists/ListsScreen").then((all) => all.ListsScreen));
const RigScreen = lazyScreen(() => import("./screens/rig/RigScreen").then((all) => all.RigScreen));
const RollScreen = lazyScreen(() => import("./screens/roll/RollScreen").then((all) => all.RollScreen));
const StoresScreen = lazyScreen(() =>
  import("./screens/stores/StoresScreen").then((all) => all.StoresScreen),
);
const SurveyScreen = lazyScreen(() =>
  import("./screens/survey/SurveyScreen").then((all) => all.SurveyScreen),
);

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
                  <Route path="/" element={<EventsScreen />} />
                  <Route path="/events/:eventId" element={<EventGate />}>
                    <Route index element={<EventScreen />} />
                    <Route path="pieces/:pieceId" element={<BenchScreen />} />
                    <Route path="rigs/:rigId" element={<RigScreen />} />
                    <Route path="survey" element={<SurveyScreen />} />
                    <Route path="roll" element={<RollScreen />} />
                    <Route path="day" element={<DayScreen />} />
                    <Route path="lists" element={<ListsScreen />} />
                    <Route path="cost" element={<CostScreen />} />
                    <Route path="*" element={<NothingHere />} />
                  </Route>
                  <Route path="/stores" element={<StoresScreen />} />
                  <Route path="/figures" element={<FiguresScreen />} />
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
