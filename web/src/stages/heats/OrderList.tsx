import { GripVertical } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Step } from "../../api/client";
import { useUnits } from "../../api/hooks";
import { useDraft, useDraftPart, useDraftState } from "../../draft/context";
import { count, say, told } from "../../text/say";
import { print } from "../../units/print";
import { operationName } from "../../words/operation";
import { isCycle, isTreatment } from "./machine";
import { moved } from "./order";

const field = "choices.order";

/** The operations in order, each to be dragged earlier or later by its grip; an order that breaks a need says which. */
export function OrderList({ onOperation }: { onOperation: (id: string) => void }) {
  const draft = useDraft();
  const { plan, doc } = useDraftState();
  const wanted = useDraftPart((s) => s.typed[field]);
  const error = useDraftPart((s) => s.errors[field]);
  const own = (doc.request.choices.order ?? []).length > 0;
  const list = useRef<HTMLOListElement>(null);
  const [drag, setDrag] = useState<{ id: string; to: number }>();
  const ids = plan.operations.filter((o) => !isCycle(o.kind)).map((o) => o.id);
  const asked = wanted && wanted !== "planner" ? wanted.split(",").filter((id) => ids.includes(id)) : ids;
  const shown = drag ? moved(asked, drag.id, drag.to) : asked;
  const byId = new Map(plan.operations.map((o) => [o.id, o]));
  const hardened = shown.indexOf("harden");
  const forging = shown.map((id) => byId.get(id));
  const steps = forging.toSpliced(
    hardened < 0 ? forging.length : hardened,
    0,
    ...plan.operations.filter((o) => isCycle(o.kind)),
  );
  const take = (id: string, to: number) => {
    const next = moved(asked, id, to);
    if (next.join() !== asked.join()) draft.choose(field, next.join());
  };
  const place = (y: number) => {
    const rows = [...(list.current?.querySelectorAll("[data-movable]") ?? [])];
    const k = rows.findIndex((r) => y < r.getBoundingClientRect().bottom);
    return k < 0 ? rows.length - 1 : k;
  };
  const grip = (id: string) => ({
    onPointerDown: (e: PointerEvent<HTMLButtonElement>) => {
      e.currentTarget.setPointerCapture(e.pointerId);
      setDrag({ id, to: asked.indexOf(id) });
    },
    onPointerMove: (e: PointerEvent) => drag && setDrag({ id: drag.id, to: place(e.clientY) }),
    onPointerUp: () => {
      if (drag) take(drag.id, drag.to);
      setDrag(undefined);
    },
    onPointerCancel: () => setDrag(undefined),
    onKeyDown: (e: KeyboardEvent) => {
      const by = { ArrowUp: -1, ArrowDown: 1 }[e.key];
      if (!by) return;
      e.preventDefault();
      e.stopPropagation();
      take(id, asked.indexOf(id) + by);
    },
  });
  return (
    <section aria-label={say("order.title")} className="grid gap-2">
      {error && (
        <div role="alert" className="grid gap-2 border-l-[3px] border-ember pl-2" data-testid="order-broken">
          <p>{error.message}</p>
          <div className="flex flex-wrap gap-1.5">
            <button type="button" className="press press-act" onClick={() => draft.revert(field)}>
              {say("order.keep")}
            </button>
            <button
              type="button"
              className="press"
              data-testid="order-force"
              onClick={() => {
                draft.revert(field);
                draft.choose("choices.forceOrder", asked.join());
              }}
            >
              {say("order.force")}
            </button>
          </div>
        </div>
      )}
      <ol ref={list} className="grid">
        {steps.map(
          (op, i) =>
            op && (
              <Row
                key={op.id}
                op={op}
                n={i + 1}
                lifted={drag?.id === op.id}
                grip={isCycle(op.kind) ? undefined : grip(op.id)}
                onOpen={() => onOperation(op.id)}
              />
            ),
        )}
      </ol>
      <p className="text-sm text-quiet">{say("order.help")}</p>
      {own && (
        <button
          type="button"
          className="press justify-self-start"
          onClick={() => draft.choose(field, "planner")}
          data-testid="order-planner"
        >
          {say("order.planner")}
        </button>
      )}
    </section>
  );
}

type Grip = Pick<
  React.ComponentProps<"button">,
  "onPointerDown" | "onPointerMove" | "onPointerUp" | "onPointerCancel" | "onKeyDown"
>;

function Row({
  op,
  n,
  lifted,
  grip,
  onOpen,
}: {
  op: Step;
  n: number;
  lifted: boolean;
  grip?: Grip;
  onOpen: () => void;
}) {
  const units = useUnits();
  return (
    <li className={`border-b border-line ${lifted ? "bg-raised" : ""}`} data-movable={grip ? op.id : undefined}>
      <div className="grid grid-cols-[1.5rem_1fr] items-start">
        {grip ? (
          <button
            type="button"
            className="grid h-9 cursor-grab touch-none place-items-center text-quiet hover:text-act"
            aria-label={say("order.move", { op: operationName(op, units) })}
            data-grip={op.id}
            {...grip}
          >
            <GripVertical size={16} aria-hidden />
          </button>
        ) : (
          <span />
        )}
        <button
          type="button"
          data-operation={op.id}
          onClick={onOpen}
          className="grid w-full grid-cols-[1.4rem_1fr_auto] items-baseline gap-x-1 py-1.5 text-left hover:text-act"
        >
          <span className="text-quiet">{n}</span>
          <span>
            {operationName(op, units)}
            {op.targetC ? <span className="text-quiet"> {print.temperature(op.targetC, units)}</span> : null}
            {op.forging?.face && (
              <span className="block text-sm leading-tight text-quiet">
                {told(op.forging.machine ? `machine.${op.forging.machine}` : `face.${op.forging.face}`)}
              </span>
            )}
          </span>
          <span className="narrow text-right text-[16px]">
            {isTreatment(op.kind)
              ? say(op.kind === "harden" ? "heats.hardening" : "heats.cycle")
              : say("heats.opFigures", {
                  heats: op.heats < 0.95 ? say("heats.part") : count("heats.opHeats", Math.round(op.heats)),
                  blows: Math.max(1, Math.round(op.forging?.blows ?? 0)),
                })}
          </span>
        </button>
      </div>
      {op.cautionCodes.map((c) => (
        <p key={c} className="mb-1.5 ml-[1.6rem] border-l-[3px] border-ember pl-2 text-sm" data-caution={c}>
          {told(c)}
        </p>
      ))}
    </li>
  );
}
