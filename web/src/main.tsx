import "./ui/theme.css";
import "./drawing/inks.css";
import "./drawing/guides.css";
import "./drawing/charts.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { Tooltip } from "radix-ui";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { ErrorBoundary } from "react-error-boundary";
import { BrowserRouter, Route, Routes } from "react-router";

import { OpenToPhones } from "./floor/OpenToPhones";
import { Door } from "./ui/Door";
import { GlossaryProvider } from "./ui/terms";
import { BrokenDown, NotFound, Waiting } from "./ui/states";

// Each page is fetched when it is gone to.
const CornersPage = lazy(() => import("./corners/CornersPage").then((m) => ({ default: m.CornersPage })));
const StartPage = lazy(() => import("./start/StartPage").then((m) => ({ default: m.StartPage })));
const AnswersPage = lazy(() => import("./answers/AnswersPage").then((m) => ({ default: m.AnswersPage })));
const AllFigures = lazy(() => import("./start/AllFigures").then((m) => ({ default: m.AllFigures })));
const CornerPage = lazy(() => import("./corner/CornerPage").then((m) => ({ default: m.CornerPage })));
const HousePage = lazy(() => import("./house/HousePage").then((m) => ({ default: m.HousePage })));
const LayingPage = lazy(() => import("./floor/LayingPage").then((m) => ({ default: m.LayingPage })));
const PhonePage = lazy(() => import("./floor/PhonePage").then((m) => ({ default: m.PhonePage })));
const PhoneTakes = lazy(() => import("./take/PhoneTakes").then((m) => ({ default: m.PhoneTakes })));
const KitPage = lazy(() => import("./kit/KitPage").then((m) => ({ default: m.KitPage })));

/** The server is this computer, or one beside it: it is asked although the browser sees no network. */
const ALWAYS = { networkMode: "always" } as const;
const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 5_000, ...ALWAYS }, mutations: ALWAYS },
});

// Dialogs put a style into the page while they are open.
setNonce(document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? "");

/** The pages of this machine. */
function Desk() {
  return (
    <GlossaryProvider>
      <Door>
        <OpenToPhones />
        <Routes>
          <Route path="/" element={<CornersPage />} />
          <Route path="/new" element={<StartPage />} />
          <Route path="/new/all" element={<AllFigures />} />
          <Route path="/kept" element={<HousePage />} />
          <Route path="/kit" element={<KitPage />} />
          <Route path="/corners/:id/answers" element={<AnswersPage />} />
          <Route path="/corners/:id/floor" element={<LayingPage />} />
          <Route path="/corners/:id/:place?/:tab?" element={<CornerPage />} />
          <Route path="*" element={<NotFound />} />
        </Routes>
      </Door>
    </GlossaryProvider>
  );
}

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <Tooltip.Provider delayDuration={400}>
          <BrowserRouter>
            <ErrorBoundary fallbackRender={({ error }) => <BrokenDown error={error} />}>
              <Suspense fallback={<Waiting what="Opening" />}>
                <Routes>
                  {/* A phone has a door of its own, and asks for nothing else. */}
                  <Route path="/phone/:id/takes" element={<PhoneTakes />} />
                  <Route path="/phone/:id?" element={<PhonePage />} />
                  <Route path="*" element={<Desk />} />
                </Routes>
              </Suspense>
            </ErrorBoundary>
          </BrowserRouter>
        </Tooltip.Provider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
