import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import "@fontsource-variable/fraunces/index.css";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "./styles.css";
import { BenchPlace } from "./places/bench/BenchPlace";
import { CostPlace } from "./places/cost/CostPlace";
import { DayPlace } from "./places/day/DayPlace";
import { EventGate } from "./places/EventGate";
import { FiguresPlace } from "./places/figures/FiguresPlace";
import { EventPlace } from "./places/line-up/EventPlace";
import { EventsPlace } from "./places/line-up/EventsPlace";
import { ListsPlace } from "./places/lists/ListsPlace";
import { NothingHere } from "./places/NothingHere";
import { RigPlace } from "./places/rig/RigPlace";
import { RollPlace } from "./places/roll/RollPlace";
import { StoresPlace } from "./places/stores/StoresPlace";
import { SurveyPlace } from "./places/survey/SurveyPlace";
import { keepFocus } from "./ui/keepFocus";
import { Meaning } from "./ui/Meaning";
import { SettingsProvider } from "./ui/settings";
import { TourCard } from "./ui/TourCard";

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 0 } } });
const root = document.getElementById("root");
if (root) {
  keepFocus(root);
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <SettingsProvider>
          <BrowserRouter>
            <TourCard />
            <Meaning />
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
          </BrowserRouter>
        </SettingsProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
