import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { Refused, type Zone } from "../api/client";
import { type Saved, useSaved } from "../api/events";
import { useStates, useSteelName, useStock, useUnits } from "../api/hooks";
import { Bench } from "../bench/Bench";
import type { NodeRef } from "../bench/Nodes";
import { barSize } from "../rack/forms";
import { Others } from "../school/Others";
import { useTitle } from "../shell/focus";
import { useKeys } from "../shell/keys";
import { NotThere } from "../shell/NotThere";
import { Failed, Loading } from "../shell/States";
import { AnvilPanel } from "../stages/anvil/AnvilPanel";
import { BladePanel } from "../stages/blade/BladePanel";
import { OutlineSheet } from "../stages/blade/OutlineFile";
import type { PictureState } from "../stages/blade/PicturePanel";
import { useNodeRules } from "../stages/blade/useNodeRules";
import { CutPanel } from "../stages/cut/CutPanel";
import { FinishPanel } from "../stages/finish/FinishPanel";
import { FinishSheet } from "../stages/finish/FinishSheet";
import { CyclesPanel } from "../stages/harden/CyclesPanel";
import { HardenPanel } from "../stages/harden/HardenPanel";
import { useAdvice } from "../stages/harden/useAdvice";
import { HeatRail } from "../stages/heats/HeatRail";
import { HeatsPanel } from "../stages/heats/HeatsPanel";
import { Ledger } from "../stages/Ledger";
import { LogPanel } from "../stages/log/LogPanel";
import { LogSheet } from "../stages/log/LogSheet";
import { StockPanel } from "../stages/stock/StockPanel";
import { useSure } from "../stages/stock/useAsked";
import { Warnings } from "../stages/Warnings";
import { say, told } from "../text/say";
import { DropFiles } from "../ui/DropFiles";
import { DraftProvider, useDraft, useDraftState } from "./context";
import { calls, Draft } from "./draft";
import { StageRail, stages } from "./StageRail";
import { StaleBar } from "./StaleBar";
import { Told } from "./Told";
import { TopBar } from "./TopBar";

/** The bench of one piece, with the stages of its work. */
export function PiecePage() {
  const { id = "", stage = "blade" } = useParams();
  const [draft, setDraft] = useState<Draft>();
  const [error, setError] = useState<Error>();
  const [tries, setTries] = useState(0);
  const units = useUnits();
  const client = useQueryClient();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the units follow below; tries asks again
  useEffect(() => {
    let gone = false;
    setDraft(undefined);
    setError(undefined);
    calls.load(id).then(
      (a) => !gone && setDraft(new Draft(a, units)),
      (e: Error) => !gone && setError(e),
    );
    return () => {
      gone = true;
    };
  }, [id, tries]);
  useEffect(() => draft?.setUnits(units), [draft, units]);
  useEffect(() => {
    if (!draft) return;
    const leave = () => void draft.flush();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      void draft.flush().then(() => {
        void client.invalidateQueries({ queryKey: ["pieces"] });
        void client.invalidateQueries({ queryKey: ["stock"] });
      });
    };
  }, [draft, client]);
  if ((error instanceof Refused && error.problem.status === 404) || !stages.some((s) => s === stage))
    return <NotThere />;
  if (error) return <Failed error={error} retry={() => setTries(tries + 1)} />;
  if (!draft) return <Loading />;
  return (
    <DraftProvider value={draft}>
      <Work />
    </DraftProvider>
  );
}

function Work() {
  const draft = useDraft();
  const s = useDraftState();
  const { stage = "blade" } = useParams();
  const go = useNavigate();
  const units = useUnits();
  const stock = useStock();
  const [zoom, setZoom] = useState(1);
  const [dropped, setDropped] = useState<File>();
  const panel = useRef<HTMLDivElement>(null);
  const [flip, setFlip] = useState(() => localStorage.getItem("coldember.flip") === "1");
  const [heat, setHeat] = useState<number>();
  const [zone, setZone] = useState<Zone>();
  const [moving, setMoving] = useState(false);
  const [node, setNode] = useState<NodeRef>();
  const [section, setSection] = useState(0.6);
  const [rules, setRules] = useNodeRules();
  const sure = useSure(stage === "cut");
  const advice = useAdvice(stage === "harden");
  const [picture, setPicture] = useState<PictureState>({ mode: "none", points: [] });
  const nodes = moving && stage === "blade";
  const { plan, doc } = s;
  const steelName = useSteelName();
  useTitle(doc.name, told(`stage.${stage}`));
  const heats = plan.heats.length;
  const at = heat !== undefined && heat <= heats ? heat : undefined;
  const rackItem = stock.data?.find((i) => i.id === doc.stockId);
  useSaved(
    useCallback(
      (e: Saved) => {
        if (e.kind === "piece" && e.id === draft.get().piece.id) void draft.heard(e.version).catch(() => {});
      },
      [draft],
    ),
  );
  const states = useStates(doc, plan, at !== undefined);
  const body = steelName(doc.request.bit ? doc.request.steelId : plan.steel.id); // the bit's grade is the plan's
  const barName = `${body}, ${barSize(doc.request.bar, units)}${rackItem ? `, ${rackItem.name}` : ""}`;
  const turn = useCallback(() => {
    localStorage.setItem("coldember.flip", flip ? "0" : "1");
    setFlip(!flip);
  }, [flip]);
  const scrub = (by: number) => setHeat((h) => Math.min(heats, Math.max(1, (h ?? (by > 0 ? 0 : heats + 1)) + by)));
  const open = useCallback((to: string) => go(`/pieces/${s.piece.id}/${to}`, { replace: true }), [go, s.piece.id]);
  const worked = useMemo(() => plan.heats.find((h) => h.number === at)?.parts.map((x) => x.operation), [plan, at]);
  useKeys({
    "mod+z": () => void draft.undo(),
    "mod+shift+z": () => void draft.redo(),
    "mod+y": () => void draft.redo(),
    f: turn,
    n: () => setMoving(!moving),
    "+": () => setZoom((z) => Math.min(6, z * 1.25)),
    "=": () => setZoom((z) => Math.min(6, z * 1.25)),
    "-": () => setZoom((z) => Math.max(1, z / 1.25)),
    "0": () => setZoom(1),
    "[": () => scrub(-1),
    "]": () => scrub(1),
    Escape: () => setHeat(undefined),
    p: () => window.open(`/api/v1/pieces/${s.piece.id}/card.pdf`, "_blank"),
    ...Object.fromEntries(
      stages.map((name, i) => [
        String(i + 1),
        () => {
          open(name);
          panel.current?.focus();
        },
      ]),
    ),
  });
  return (
    <DropFiles
      endings={["svg", "dxf"]}
      what={say("drop.outline")}
      onFile={setDropped}
      className="flex min-h-0 flex-1 flex-col"
    >
      <h1 className="sr-only">{doc.name}</h1>
      <Told />
      <TopBar zoom={zoom} onZoom={setZoom} flip={flip} onFlip={turn} />
      <StaleBar />
      <Others />
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto lg:flex-row lg:overflow-hidden">
        <div className="flex min-h-[470px] min-w-0 sm:min-h-[540px] flex-1 flex-col lg:min-h-0">
          {stage === "log" ? (
            <LogSheet />
          ) : stage === "finish" ? (
            <FinishSheet flip={flip} />
          ) : (
            <Bench
              plan={plan}
              units={units}
              barName={barName}
              flatBar={doc.request.bar.form === "flat"}
              ballMm={doc.request.bar.form === "ball" ? doc.request.bar.diameterMm : undefined}
              zoom={zoom}
              flip={flip}
              heat={at}
              state={states?.find((x) => x.number === at)}
              selected={zone}
              onSelect={setZone}
              band={stage === "cut" && sure.data && sure.data.highMm > sure.data.lowMm ? sure.data : undefined}
              hard={stage === "harden" ? advice.data?.line : undefined}
              section={stage === "blade" ? { at: section, onAt: setSection } : undefined}
              nodes={
                nodes
                  ? {
                      chosen: node,
                      onChoose: setNode,
                      onAdd: (f, w) => draft.choose(f, w),
                      rules,
                      picture: doc.picture,
                      pictureMode: picture.mode,
                      picturePoints: picture.points,
                      onPicturePoint: (px) =>
                        setPicture((p) =>
                          p.mode === "first"
                            ? { mode: "second", points: [px] }
                            : { mode: "none", points: [...p.points, px] },
                        ),
                    }
                  : undefined
              }
            />
          )}
          {stage !== "log" && stage !== "finish" && <HeatRail plan={plan} heat={at} onHeat={setHeat} />}
        </div>
        <aside
          className="flex shrink-0 flex-col border-line max-lg:border-t lg:w-[360px] lg:border-l"
          aria-label={told(`stage.${stage}`)}
        >
          <StageRail stage={stage} onOpen={open} />
          <div
            ref={panel}
            id="figures"
            tabIndex={-1}
            data-home
            className="min-h-0 flex-1 overflow-y-auto p-3 outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-act"
          >
            <Warnings stage={stage} operations={stage === "heats" ? worked : undefined} onShow={setZone} />
            {stage === "blade" && (
              <BladePanel
                moving={moving}
                onMoving={setMoving}
                node={node}
                onNode={setNode}
                rules={rules}
                onRules={setRules}
                picture={picture}
                onPicture={setPicture}
                section={section}
                onSection={setSection}
              />
            )}
            {stage === "stock" && <StockPanel />}
            {stage === "cut" && <CutPanel selected={zone} onSelect={setZone} />}
            {stage === "heats" && <HeatsPanel heat={at} onHeat={setHeat} />}
            {stage === "anvil" && <AnvilPanel />}
            {stage === "cycles" && <CyclesPanel />}
            {stage === "harden" && <HardenPanel />}
            {stage === "finish" && <FinishPanel />}
            {stage === "log" && <LogPanel />}
          </div>
          <Ledger plan={plan} units={units} />
        </aside>
      </div>
      {dropped && <OutlineSheet open file={dropped} onClose={() => setDropped(undefined)} />}
    </DropFiles>
  );
}
