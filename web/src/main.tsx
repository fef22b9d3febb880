import "./ui/theme.css";
import "./drawing/inks.css";
import "./drawing/guides.css";
import "./drawing/charts.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { Tooltip } from "radix-ui";
import { StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { ErrorBoundary } from "react-error-boundary";
import { BrowserRouter, matchPath, Route, Routes } from "react-router";

import { OpenToPhones } from "./floor/OpenToPhones";
import { Door } from "./ui/Door";
import { fetched, type Fetched } from "./ui/fetched";
import { GlossaryProvider } from "./ui/terms";
import { BrokenDown, NotFound, Waiting } from "./ui/states";

// Each page is fetched when it is gone to. A phone has a door of its own, and asks for nothing else.
const ON_PHONES = {
  "/phone/:id/takes": fetched(() => import("./take/PhoneTakes").then((m) => m.PhoneTakes)),
  "/phone/:id?": fetched(() => import("./floor/PhonePage").then((m) => m.PhonePage)),
};
const ON_THE_DESK = {
  "/": fetched(() => import("./corners/CornersPage").then((m) => m.CornersPage)),
  "/new": fetched(() => import("./start/StartPage").then((m) => m.StartPage)),
  "/new/all": fetched(() => import("./start/AllFigures").then((m) => m.AllFigures)),
  "/kept": fetched(() => import("./house/HousePage").then((m) => m.HousePage)),
  "/kit": fetched(() => import("./kit/KitPage").then((m) => m.KitPage)),
  "/corners/:id/answers": fetched(() => import("./answers/AnswersPage").then((m) => m.AnswersPage)),
  "/corners/:id/floor": fetched(() => import("./floor/LayingPage").then((m) => m.LayingPage)),
  "/corners/:id/:place?/:tab?": fetched(() => import("./corner/CornerPage").then((m) => m.CornerPage)),
};

/** The routes of pages. */
const routesOf = (pages: Record<string, Fetched>) =>
  Object.entries(pages).map(([path, { Page }]) => <Route key={path} path={path} element={<Page />} />);

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
          {routesOf(ON_THE_DESK)}
          <Route path="*" element={<NotFound />} />
        </Routes>
      </Door>
    </GlossaryProvider>
  );
}

/** The page that the address asks for is fetched first: what comes after a placeholder, React shows 300 ms later. */
async function begin(root: HTMLElement): Promise<void> {
  const pages = Object.entries({ ...ON_PHONES, ...ON_THE_DESK });
  const [, first] = pages.find(([path]) => matchPath(path, window.location.pathname)) ?? [];
  // One that cannot be fetched is told of by the page's own boundary.
  await first?.fetch().catch(() => undefined);
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <Tooltip.Provider delayDuration={400}>
          <BrowserRouter>
            <ErrorBoundary fallbackRender={({ error }) => <BrokenDown error={error} />}>
              <Suspense fallback={<Waiting what="Opening" />}>
                <Routes>
                  {routesOf(ON_PHONES)}
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

const root = document.getElementById("root");
if (root) void begin(root);
