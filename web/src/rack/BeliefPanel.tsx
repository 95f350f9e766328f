import { useQueryClient } from "@tanstack/react-query";
import { api, ask, type Stock } from "../api/client";
import { useSalvage, useShop, useSteels, useUnits } from "../api/hooks";
import { has, say, told } from "../text/say";
import { Group } from "../ui/Group";
import { Pick } from "../ui/Pick";
import { Typed } from "../ui/Typed";
import { useTyped } from "../ui/useTyped";
import { localNumber, print } from "../units/print";
import type { Item } from "./useItem";

const percent = (v: number) => localNumber(`${(v * 100).toFixed(v < 0.1 ? 1 : 0)} %`);

/** What steel it is: known, or believed by what it was and what the tests said. */
export function BeliefPanel({ item, edit }: { item: Stock; edit: Item }) {
  const table = useSalvage();
  const steels = useSteels();
  const units = useUnits();
  const known = !item.believed;
  return (
    <Group title={say("rack.steel")} term="belief">
      <Pick
        label={say("rack.origin")}
        value={item.origin ?? ""}
        onPick={(v) => void edit.save("origin", v)}
        options={(table.data?.origins ?? []).map((o) => ({ value: o.id, label: told(`origin.${o.id}`) }))}
        field="origin"
      />
      <Pick
        label={say("rack.known")}
        value={known ? "yes" : "no"}
        onPick={(v) => void edit.save("known", v)}
        options={["yes", "no"].map((v) => ({ value: v, label: told(`rack.known.${v}`) }))}
        field="known"
      />
      {known ? (
        <>
          <Pick
            label={say("field.name.steelId")}
            value={item.steelId}
            onPick={(v) => void edit.save("steelId", v)}
            options={(steels.data ?? []).map((g) => ({ value: g.id, label: g.name }))}
            field="steelId"
          />
          <Typed label={say("rack.certificate")} {...edit.props("certificate", item.certificate ?? "")} />
        </>
      ) : item.belief ? (
        <Believed item={item} edit={edit} />
      ) : (
        <p className="col-span-2 text-quiet">{say("rack.originFirst")}</p>
      )}
      <p className="col-span-2 text-sm text-quiet">
        {say("rack.windowIs", {
          low: print.temperature(item.belief?.forgeLowC ?? grade(steels.data, item.steelId)?.forgeLowC ?? 0, units),
          high: print.temperature(item.belief?.forgeHighC ?? grade(steels.data, item.steelId)?.forgeHighC ?? 0, units),
        })}
      </p>
    </Group>
  );
}

const grade = (list: { id: string; forgeLowC: number; forgeHighC: number }[] | undefined, id: string) =>
  list?.find((g) => g.id === id);

function Believed({ item, edit }: { item: Stock; edit: Item }) {
  const table = useSalvage();
  const b = item.belief;
  if (!b) return null;
  const top = b.shares[0];
  return (
    <div className="col-span-2 grid gap-3">
      <p
        className={b.verdict === "contradictory" ? "font-semibold text-ember" : "font-semibold"}
        data-verdict={b.verdict}
      >
        {say(`verdict.${b.verdict}`, { family: told(`family.${top?.family}`) })}
      </p>
      <ul className="grid gap-1" data-testid="belief">
        {b.shares
          .filter((s) => s.now >= 0.01 || s.prior >= 0.03)
          .map((s) => (
            <li key={s.family} className="grid grid-cols-[11rem_1fr_3.5rem] items-center gap-2" data-family={s.family}>
              <span className="truncate text-sm">{told(`family.${s.family}`)}</span>
              <span className="relative h-3.5 border border-line">
                <span
                  className="absolute inset-y-0 left-0 bg-act"
                  style={{ width: `${s.now * 100}%`, opacity: s.now >= 0.05 ? 1 : 0.5 }}
                />
                <span
                  className="absolute -inset-y-0.5 w-0.5 bg-chalk"
                  style={{ left: `${s.prior * 100}%` }}
                  title={say("rack.prior", { share: percent(s.prior) })}
                />
              </span>
              <span className="narrow text-right">{percent(s.now)}</span>
            </li>
          ))}
      </ul>
      <p className="text-sm text-quiet">{say("rack.beliefNote")}</p>
      <table className="w-full">
        <caption className="narrow mb-1 border-b border-line text-left text-[17px]">{say("rack.tests")}</caption>
        <tbody>
          {(table.data?.tests ?? []).map((t) => {
            const step = b.steps.find((s) => s.test === t.id);
            return (
              <tr key={t.id} className="align-top" data-test={t.id}>
                <td className="py-1">
                  <Pick
                    label={told(`test.${t.id}`)}
                    value={step?.result ?? "none"}
                    onPick={(v) => void edit.save(`test.${t.id}`, v === "none" ? "" : v)}
                    options={[
                      { value: "none", label: say("rack.notTested") },
                      ...t.results.map((r) => ({ value: r.id, label: told(`test.${t.id}.${r.id}`) })),
                    ]}
                    field={`test.${t.id}`}
                  />
                </td>
                <td className="w-52 py-1 pl-3 text-sm text-quiet">
                  {step && top ? (
                    <>
                      {say("rack.likelihood", {
                        share: percent(step.p[top.family] ?? 0),
                        family: told(`family.${top.family}`),
                      })}{" "}
                      <OwnLikelihood test={t.id} result={step.result} family={top.family} p={step.p[top.family] ?? 0} />
                      {say("rack.then", { share: percent(step.after[top.family] ?? 0) })}
                      {step.odd && <span className="block font-semibold text-ember">{say("rack.odd")}</span>}
                    </>
                  ) : (
                    t.source
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Coupon item={item} edit={edit} />
    </div>
  );
}

/** The shop's own share in place of the table's; emptied, the table's again. */
function OwnLikelihood({ test, result, family, p }: { test: string; result: string; family: string; p: number }) {
  const client = useQueryClient();
  const shop = useShop();
  const field = `likelihood.${test}.${result}.${family}`;
  const t = useTyped();
  const own = shop.data?.likelihoods?.some((l) => l.test === test && l.result === result && l.family === family);
  const keep = async () => {
    const text = t.texts[field];
    if (text === undefined || !shop.data) return;
    const { version } = shop.data;
    const s = await t.attempt(() => ask(api.PATCH("/api/v1/shop", { body: { version, edits: [{ field, text }] } })));
    if (!s) return;
    t.setTexts({});
    client.setQueryData(["shop"], s);
    await client.invalidateQueries({ queryKey: ["stock"] });
  };
  return (
    <span className="my-1 block max-w-40">
      <Typed
        {...t.props(field, localNumber(`${(p * 100).toFixed(1)} %`))}
        label={say(own ? "rack.ownShare" : "rack.tableShare")}
        onDone={() => void keep()}
      />
    </span>
  );
}

const couponSteps = ["cut", "forge", "normalise", "harden", "file", "snap", "grain", "temper"];

/** The coupon: a small piece proves the heat treatment before the blade is trusted to it. */
function Coupon({ item, edit }: { item: Stock; edit: Item }) {
  const done = item.coupon ?? [];
  return (
    <details>
      <summary className="narrow cursor-pointer text-[17px]">
        {say("coupon.title", { done: done.length, of: couponSteps.length })}
      </summary>
      <ol className="mt-1 grid gap-1">
        {couponSteps.map((s) => (
          <li key={s}>
            <label className="flex gap-2">
              <input
                type="checkbox"
                className="mt-1"
                checked={done.includes(s)}
                onChange={(e) => void edit.save(`coupon.${s}`, e.target.checked ? "on" : "off")}
              />
              <span>
                {told(`coupon.${s}`)}
                {has(`coupon.caution.${s}`) && (
                  <span className="block border-l-[3px] border-ember pl-2 text-sm">{told(`coupon.caution.${s}`)}</span>
                )}
              </span>
            </label>
          </li>
        ))}
      </ol>
    </details>
  );
}
