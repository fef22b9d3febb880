import "./ui/theme.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";

import { BriefPage } from "./brief/BriefPage";
import { CornerPage } from "./corner/CornerPage";
import { CornersPage } from "./corners/CornersPage";
import { KitPage } from "./kit/KitPage";
import { StartPage } from "./start/StartPage";
import { GlossaryProvider } from "./ui/terms";
import { NotFound } from "./ui/states";

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <Tooltip.Provider delayDuration={400}>
          <GlossaryProvider>
            <BrowserRouter>
              <Routes>
                <Route path="/" element={<CornersPage />} />
                <Route path="/new" element={<StartPage />} />
                <Route path="/new/all" element={<BriefPage />} />
                <Route path="/kit" element={<KitPage />} />
                <Route path="/corners/:id/brief" element={<BriefPage />} />
                <Route path="/corners/:id/:step?" element={<CornerPage />} />
                <Route path="*" element={<NotFound />} />
              </Routes>
            </BrowserRouter>
          </GlossaryProvider>
        </Tooltip.Provider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
