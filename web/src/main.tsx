import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ComponentType, lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import { Refused } from "./api/client";
import { PiecesPage } from "./pieces/PiecesPage";
import { onShelf } from "./shelf/onShelf";
import { Frame } from "./shell/Frame";
import { installable } from "./shell/installed";
import { NotThere } from "./shell/NotThere";
import { begin, moreWords } from "./text/language";
import "./styles.css";

// A page comes when it is first opened, with its words, so that the first one is there at once.
const page = (load: () => Promise<{ default: ComponentType }>) =>
  lazy(async () => (await Promise.all([load(), moreWords()]))[0]);
const PiecePage = page(() => import("./draft/PiecePage").then((m) => ({ default: m.PiecePage })));
const AnvilPage = page(() => import("./anvil/AnvilPage").then((m) => ({ default: m.AnvilPage })));
const ReplayPage = page(() => import("./anvil/ReplayPage").then((m) => ({ default: m.ReplayPage })));
const PatternsPage = page(() => import("./patterns/PatternsPage").then((m) => ({ default: m.PatternsPage })));
const RackPage = page(() => import("./rack/RackPage").then((m) => ({ default: m.RackPage })));
const BilletPage = page(() => import("./billet/BilletPage").then((m) => ({ default: m.BilletPage })));
const SheetPage = page(() => import("./sheet/SheetPage").then((m) => ({ default: m.SheetPage })));
const CutsPage = page(() => import("./cuts/CutsPage").then((m) => ({ default: m.CutsPage })));
const DayPage = page(() => import("./day/DayPage").then((m) => ({ default: m.DayPage })));
const BookPage = page(() => import("./book/BookPage").then((m) => ({ default: m.BookPage })));
const ReplanPage = page(() => import("./replan/ReplanPage").then((m) => ({ default: m.ReplanPage })));
const HourPage = page(() => import("./hour/HourPage").then((m) => ({ default: m.HourPage })));
const SaidPage = page(() => import("./said/SaidPage").then((m) => ({ default: m.SaidPage })));
const ColoursPage = page(() => import("./practice/ColoursPage").then((m) => ({ default: m.ColoursPage })));
const PracticePage = page(() => import("./practice/PracticePage").then((m) => ({ default: m.PracticePage })));
const PracticeSheetPage = page(() => import("./practice/SheetPage").then((m) => ({ default: m.PracticeSheetPage })));
const PracticePiecePage = page(() => import("./practice/PracticePage").then((m) => ({ default: m.PracticePiecePage })));
const HelpPage = page(() => import("./help/HelpPage").then((m) => ({ default: m.HelpPage })));
const WordsPage = page(() => import("./words/WordsPage").then((m) => ({ default: m.WordsPage })));
const ShelfFrame = page(() => import("./shelf/ShelfFrame").then((m) => ({ default: m.ShelfFrame })));
const ShelfPage = page(() => import("./shelf/ShelfPage").then((m) => ({ default: m.ShelfPage })));
const ShopPage = page(() => import("./shop/ShopPage").then((m) => ({ default: m.ShopPage })));

const client = new QueryClient({
  defaultOptions: {
    queries: { retry: (n, e) => !(e instanceof Refused) && n < 3, refetchOnWindowFocus: false, staleTime: 5000 },
  },
});

const show = (root: HTMLElement) =>
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          {onShelf ? (
            <Routes>
              <Route
                element={
                  <Suspense>
                    <ShelfFrame />
                  </Suspense>
                }
              >
                <Route path="pieces/:id/fire" element={<AnvilPage />} />
                <Route path="*" element={<ShelfPage />} />
              </Route>
            </Routes>
          ) : (
            <Routes>
              <Route element={<Frame />}>
                <Route index element={<PiecesPage />} />
                <Route path="patterns/:id?" element={<PatternsPage />} />
                <Route path="rack/:id?" element={<RackPage />} />
                <Route path="billets/:id" element={<BilletPage />} />
                <Route path="cuts" element={<CutsPage />} />
                <Route path="sheet" element={<SheetPage />} />
                <Route path="sessions/:id/replay" element={<ReplayPage />} />
                <Route path="sessions/:id/replan" element={<ReplanPage />} />
                <Route path="day" element={<DayPage />} />
                <Route path="learned" element={<SaidPage />} />
                <Route path="hour" element={<HourPage />} />
                <Route path="book" element={<BookPage />} />
                <Route path="practice/colours" element={<ColoursPage />} />
                <Route path="practice/sheet" element={<PracticeSheetPage />} />
                <Route path="practice/piece/:id" element={<PracticePiecePage />} />
                <Route path="practice/:id?" element={<PracticePage />} />
                <Route path="help/:id?" element={<HelpPage />} />
                <Route path="words/:id?" element={<WordsPage />} />
                <Route path="shop" element={<ShopPage />} />
                <Route path="pieces/:id/fire" element={<AnvilPage />} />
                <Route path="pieces/:id/:stage?" element={<PiecePage />} />
                <Route path="*" element={<NotThere />} />
              </Route>
            </Routes>
          )}
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );

const root = document.getElementById("root");
if (root) {
  await begin();
  show(root);
  setTimeout(() => void moreWords().then(() => onShelf || installable()), 3000); // sooner, where a page is opened that needs them
}
