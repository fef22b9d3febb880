import "./ui/theme.css";
import "./drawing/inks.css";
import "./drawing/guides.css";
import "./drawing/charts.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { ErrorBoundary } from "react-error-boundary";
import { BrowserRouter, Route, Routes } from "react-router";

import { GlossaryProvider } from "./ui/terms";
import { BrokenDown, NotFound, Waiting } from "./ui/states";

// Each page is fetched when it is gone to.
const CornersPage = lazy(() => import("./corners/CornersPage").then((m) => ({ default: m.CornersPage })));
const StartPage = lazy(() => import("./start/StartPage").then((m) => ({ default: m.StartPage })));
const AnswersPage = lazy(() => import("./answers/AnswersPage").then((m) => ({ default: m.AnswersPage })));
const AllFigures = lazy(() => import("./start/AllFigures").then((m) => ({ default: m.AllFigures })));
const CornerPage = lazy(() => import("./corner/CornerPage").then((m) => ({ default: m.CornerPage })));
const KitPage = lazy(() => import("./kit/KitPage").then((m) => ({ default: m.KitPage })));

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <Tooltip.Provider delayDuration={400}>
          <GlossaryProvider>
            <BrowserRouter>
              <ErrorBoundary fallbackRender={({ error }) => <BrokenDown error={error} />}>
                <Suspense fallback={<Waiting what="Opening" />}>
                  <Routes>
                    <Route path="/" element={<CornersPage />} />
                    <Route path="/new" element={<StartPage />} />
                    <Route path="/new/all" element={<AllFigures />} />
                    <Route path="/kit" element={<KitPage />} />
                    <Route path="/corners/:id/answers" element={<AnswersPage />} />
                    <Route path="/corners/:id/:place?/:tab?" element={<CornerPage />} />
                    <Route path="*" element={<NotFound />} />
                  </Routes>
                </Suspense>
              </ErrorBoundary>
            </BrowserRouter>
          </GlossaryProvider>
        </Tooltip.Provider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
