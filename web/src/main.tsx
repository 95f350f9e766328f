import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import { Refused } from "./api/client";
import { CutsPage } from "./cuts/CutsPage";
import { PiecePage } from "./draft/PiecePage";
import { PatternsPage } from "./patterns/PatternsPage";
import { PiecesPage } from "./pieces/PiecesPage";
import { RackPage } from "./rack/RackPage";
import { Frame } from "./shell/Frame";
import { NotThere } from "./shell/NotThere";
import { ShopPage } from "./shop/ShopPage";
import "./styles.css";

const client = new QueryClient({
  defaultOptions: {
    queries: { retry: (n, e) => !(e instanceof Refused) && n < 3, refetchOnWindowFocus: false, staleTime: 5000 },
  },
});

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <Routes>
            <Route element={<Frame />}>
              <Route index element={<PiecesPage />} />
              <Route path="patterns/:id?" element={<PatternsPage />} />
              <Route path="rack/:id?" element={<RackPage />} />
              <Route path="cuts" element={<CutsPage />} />
              <Route path="shop" element={<ShopPage />} />
              <Route path="pieces/:id/:stage?" element={<PiecePage />} />
              <Route path="*" element={<NotThere />} />
            </Route>
          </Routes>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
