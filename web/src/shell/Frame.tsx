import { BookOpen, Flame, Hammer, HelpCircle, Layers, Moon, Ruler, Search, Shapes, Sun, UserRound } from "lucide-react";
import { lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { NavLink, Outlet, useLocation, useNavigate } from "react-router";
import { Toaster } from "sonner";
import { Refused } from "../api/client";
import { useEvents } from "../api/events";
import { Units, useEditShop, useShop } from "../api/hooks";
import { useMe } from "../school/me";
import { change, moreWords, ofBrowser } from "../text/language";
import { say } from "../text/say";
import { Timers } from "../timers/Timers";
import { Boundary } from "./Boundary";
import { useFocusOnPage, useKeptFocus } from "./focus";
import { useKeys } from "./keys";
import { Locked } from "./Locked";
import { Shortcuts } from "./Shortcuts";
import { Loading } from "./States";

const night = () => matchMedia("(prefers-color-scheme: dark)").matches;

/** Comes with the words that it finds. */
const Finder = lazy(async () => {
  const [m] = await Promise.all([import("./Finder"), moreWords()]);
  return { default: m.Finder };
});

/** Is for newcomers alone. */
const Walk = lazy(async () => {
  const [m] = await Promise.all([import("../walk/Walk"), moreWords()]);
  return { default: m.Walk };
});

/** The frame of every page: where to go on the left (below on a phone), the page beside it. */
export function Frame() {
  useEvents();
  useKeptFocus();
  useFocusOnPage();
  const shop = useShop();
  const edit = useEditShop();
  const go = useNavigate();
  const where = useLocation();
  const [help, setHelp] = useState(false);
  const [find, setFind] = useState(false);
  const theme = shop.data?.theme ?? "night";
  const shown = theme === "system" ? (night() ? "night" : "day") : theme;
  useEffect(() => {
    document.documentElement.dataset.theme = shown;
  }, [shown]);
  // the shop's language; one that has not chosen takes the browser's
  const me = useMe();
  const language = shop.data?.language;
  const choose = edit.mutate;
  useEffect(() => {
    if (language) change(language);
    else if (me.role === "smith" && language === "" && ofBrowser() !== "en")
      choose([{ field: "language", text: ofBrowser() }]);
  }, [language, choose, me.role]);
  const units = shop.data?.units ?? "mm";
  const system = shop.data?.system ?? units;
  const flipUnits = () => edit.mutate([{ field: "units", text: units === "mm" ? "in" : "mm" }]);
  const flipTheme = () => edit.mutate([{ field: "theme", text: shown === "night" ? "day" : "night" }]);
  useKeys({
    "?": () => setHelp(true),
    "mod+k": () => setFind(true),
    u: () => me.role === "smith" && flipUnits(),
    t: () => me.role === "smith" && flipTheme(),
    g: () => go("/"),
    l: () => go("/patterns"),
    k: () => go("/rack"),
    s: () => me.role !== "student" && go("/shop"),
    w: () => go("/words"),
  });
  if (shop.error instanceof Refused && shop.error.problem.status === 401) return <Locked />;
  return (
    <Units value={system}>
      <div className="flex h-full flex-col-reverse sm:flex-row">
        <SkipLinks />
        <nav
          aria-label={say("nav.name")}
          className="no-print flex shrink-0 items-center gap-1 border-line bg-raised px-1 max-sm:border-t sm:w-[76px] sm:flex-col sm:overflow-y-auto sm:border-r sm:py-2"
        >
          <Place to="/" end icon={<Layers size={20} aria-hidden />} label={say("nav.pieces")} />
          <Place to="/patterns" icon={<Shapes size={20} aria-hidden />} label={say("nav.patterns")} />
          <Place to="/rack" icon={<Ruler size={20} aria-hidden />} label={say("nav.rack")} />
          {me.role !== "student" && (
            <Place to="/shop" icon={<Hammer size={20} aria-hidden />} label={say("nav.shop")} />
          )}
          <Place to="/words" icon={<BookOpen size={20} aria-hidden />} label={say("nav.words")} />
          <RailButton
            label={say("nav.find")}
            title={say("nav.findKey")}
            icon={<Search size={18} aria-hidden />}
            onClick={() => setFind(true)}
          />
          <span className="flex-1" />
          {shop.data?.demo && (
            <span
              title={say("demo.banner")}
              className="flex flex-col items-center px-2 text-[13px] text-quiet max-sm:hidden"
            >
              <Flame size={16} aria-hidden />
              <span className="narrow">{say("demo.short")}</span>
              <span className="sr-only">{say("demo.banner")}</span>
            </span>
          )}
          {me.name && (
            <span className="flex flex-col items-center px-1 text-center text-[13px] text-quiet" data-me={me.role}>
              <UserRound size={16} aria-hidden />
              <span className="narrow max-w-[68px] truncate">{me.name}</span>
            </span>
          )}
          {me.role === "smith" && (
            <RailButton
              label={units}
              title={say("nav.units")}
              onClick={flipUnits}
              pressed={units === "in"}
              className="max-sm:hidden"
            />
          )}
          {me.role === "smith" && (
            <RailButton
              label={shown === "night" ? say("theme.night") : say("theme.day")}
              title={say("nav.theme")}
              icon={shown === "night" ? <Moon size={18} aria-hidden /> : <Sun size={18} aria-hidden />}
              onClick={flipTheme}
            />
          )}
          <RailButton
            label={say("nav.help")}
            title={say("nav.helpKey")}
            icon={<HelpCircle size={18} aria-hidden />}
            onClick={() => setHelp(true)}
          />
        </nav>
        <main tabIndex={-1} data-home className="relative outline-none flex min-h-0 min-w-0 flex-1 flex-col">
          <Timers />
          {(shop.data?.walk ?? 0) > 0 && !where.pathname.endsWith("/fire") && (
            <Suspense>
              <Walk />
            </Suspense>
          )}
          <Boundary key={where.pathname.split("/")[1]}>
            <Suspense fallback={<Loading />}>
              <Outlet />
            </Suspense>
          </Boundary>
          <div id="over" />
        </main>
        <Shortcuts open={help} onClose={() => setHelp(false)} />
        {find && (
          <Suspense>
            <Finder open onClose={() => setFind(false)} onKeys={() => setHelp(true)} />
          </Suspense>
        )}
        <Toaster position="bottom-center" theme={shown === "night" ? "dark" : "light"} />
      </div>
    </Units>
  );
}

/** Past the places to go: to the page, and on a piece past its drawing to the figures. */
function SkipLinks() {
  const skip = (to: string) => () => document.querySelector<HTMLElement>(to)?.focus();
  const onPiece = /^\/pieces\/./.test(useLocation().pathname);
  const look =
    "press press-act sr-only focus:not-sr-only focus:!fixed focus:left-2 focus:top-2 focus:z-50 focus:!px-4 focus:!py-2";
  return (
    <>
      {onPiece && (
        <button type="button" className={look} onClick={skip("#figures")} data-testid="skip-figures">
          {say("skip.figures")}
        </button>
      )}
      <button type="button" className={look} onClick={skip("main")}>
        {say("skip.page")}
      </button>
    </>
  );
}

function Place({ to, icon, label, end }: { to: string; icon: ReactNode; label: string; end?: boolean }) {
  return (
    <NavLink
      to={to}
      end={end}
      className={({ isActive }) =>
        `flex min-h-[52px] w-[52px] flex-col sm:w-16 items-center justify-center gap-0.5 rounded text-[13px] ${isActive ? "bg-plate text-act" : "text-quiet hover:text-chalk"}`
      }
    >
      {icon}
      <span className="narrow">{label}</span>
    </NavLink>
  );
}

function RailButton({
  label,
  title,
  icon,
  onClick,
  pressed,
  className = "",
}: {
  label: string;
  title: string;
  icon?: ReactNode;
  onClick: () => void;
  pressed?: boolean;
  className?: string;
}) {
  return (
    <button
      type="button"
      title={title}
      aria-pressed={pressed}
      onClick={onClick}
      className={`flex min-h-[44px] w-11 sm:w-14 flex-col items-center justify-center rounded text-[13px] text-quiet hover:text-chalk ${className}`}
    >
      {icon}
      <span className="narrow">{label}</span>
    </button>
  );
}
