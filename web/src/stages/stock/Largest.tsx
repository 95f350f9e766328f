import { useState } from "react";
import { api, ask, type Fit } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraft } from "../../draft/context";
import { say } from "../../text/say";
import { useTyped } from "../../ui/useTyped";
import { print, typedMm } from "../../units/print";

const axes = ["length", "height", "thickness"] as const;
type Axes = Record<(typeof axes)[number], { free: boolean; lowest: string; highest: string }>;

/** Backward: how large a blade of this pattern the piece gives. */
export function Largest() {
  const draft = useDraft();
  const units = useUnits();
  const t = useTyped();
  const [free, setFree] = useState<Axes>({
    length: { free: true, lowest: "30", highest: "300" },
    height: { free: true, lowest: "50", highest: "200" },
    thickness: { free: false, lowest: "60", highest: "150" },
  });
  const [fit, setFit] = useState<Fit>();
  const [asking, setAsking] = useState(false);
  const share = (s: string) => Number.parseFloat(s) / 100 || 0;
  const ask1 = async () => {
    await draft.flush();
    setAsking(true);
    const freedom = Object.fromEntries(
      axes.map((a) => [
        a,
        { free: free[a].free, lowestShare: share(free[a].lowest), highestShare: share(free[a].highest) },
      ]),
    ) as Record<(typeof axes)[number], { free: boolean; lowestShare: number; highestShare: number }>;
    const doc = draft.get().piece.doc;
    setFit(await t.attempt(() => ask(api.POST("/api/v1/plan/largest", { body: { doc, freedom } }))));
    setAsking(false);
  };
  const take = async () => {
    if (!fit) return;
    const now = draft.get().doc.request.design;
    const to = fit.design;
    const fields: [string, number][] = [
      ["lengthMm", to.lengthMm],
      ["heightMm", to.heightMm],
      ["spineMm", to.spineMm],
      ["tipMm", to.tipMm],
      ["ricasso.lengthMm", to.ricasso.lengthMm],
      ["ricasso.heightMm", to.ricasso.heightMm],
      ["ricasso.thicknessMm", to.ricasso.thicknessMm],
      ["tang.lengthMm", to.tang.lengthMm],
      ["tang.heightAtShoulderMm", to.tang.heightAtShoulderMm],
      ["tang.heightAtEndMm", to.tang.heightAtEndMm],
      ["tang.thicknessAtShoulderMm", to.tang.thicknessAtShoulderMm],
      ["tang.thicknessAtEndMm", to.tang.thicknessAtEndMm],
      ["tang.dropMm", to.tang.dropMm ?? 0],
      ["grind.edgeMm", to.grind.edgeMm ?? 0],
    ];
    // only what is free moves; rounded down, so that it still fits
    for (const [f, mm] of fields) {
      const was = f.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown>)?.[k], now);
      if (typeof was === "number" && Math.abs(was - mm) > 0.005)
        draft.type(`design.${f}`, typedMm(Math.floor(mm * 100) / 100));
    }
    await draft.flush();
    setFit(undefined);
  };
  return (
    <section>
      <h2 className="narrow mb-1.5 border-b border-line text-lg">{say("largest.title")}</h2>
      <table className="typed w-full text-sm">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">{say("largest.free")}</th>
            <th className="w-20 font-normal">{say("largest.from")}</th>
            <th className="w-20 font-normal">{say("largest.to")}</th>
          </tr>
        </thead>
        <tbody>
          {axes.map((a) => (
            <tr key={a}>
              <td>
                <label className="flex min-h-9 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={free[a].free}
                    onChange={(e) => setFree({ ...free, [a]: { ...free[a], free: e.target.checked } })}
                    data-free={a}
                  />
                  {say(`largest.${a}`)}
                </label>
              </td>
              {(["lowest", "highest"] as const).map((end) => (
                <td key={end} className="pr-1">
                  <input
                    value={free[a][end]}
                    disabled={!free[a].free}
                    inputMode="decimal"
                    aria-label={`${say(`largest.${a}`)}, ${say(end === "lowest" ? "largest.from" : "largest.to")}`}
                    onChange={(e) => setFree({ ...free, [a]: { ...free[a], [end]: e.target.value } })}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="press mt-2"
        disabled={asking}
        onClick={() => void ask1()}
        data-testid="largest-ask"
      >
        {say(asking ? "largest.wait" : "largest.ask")}
      </button>
      {(t.general || Object.values(t.errors).length > 0) && (
        <p role="alert" className="mt-2 text-ember">
          {t.general || Object.values(t.errors)[0]?.message}
        </p>
      )}
      <div aria-live="polite">
        {fit && (
          <div className="mt-2 flex items-start gap-3" data-testid="largest">
            <p className="flex-1 text-[15px]">
              {say("largest.says", {
                length: print.length(fit.design.lengthMm, units),
                height: print.length(fit.design.heightMm, units),
                spine: print.thickness(fit.design.spineMm, units),
                share: (fit.lengthShare * 100).toFixed(1),
              })}{" "}
              <span className="text-quiet">{say(`largest.limit.${limitOf(fit.limit)}`)}</span>
            </p>
            <button type="button" className="press press-act" onClick={() => void take()}>
              {say("largest.take")}
            </button>
          </div>
        )}
      </div>
    </section>
  );
}

const limitOf = (limit: string) => (limit === "volume" || limit === "heat" || limit === "limits" ? limit : "reach");
