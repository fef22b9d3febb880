import "./ui/theme.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";

import { BriefPage } from "./brief/BriefPage";
import { CardPage } from "./card/CardPage";
import { CornerPage } from "./corner/CornerPage";
import { CornersPage } from "./corners/CornersPage";
import { NotFound } from "./ui/states";

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Routes>
            <Route path="/" element={<CornersPage />} />
            <Route path="/new" element={<BriefPage />} />
            <Route path="/corners/:id" element={<CornerPage />} />
            <Route path="/corners/:id/brief" element={<BriefPage />} />
            <Route path="/corners/:id/card" element={<CardPage />} />
            <Route path="*" element={<NotFound />} />
          </Routes>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
