import { useState } from "react";
import { sendPicture } from "../../api/client";
import { useUnits } from "../../api/hooks";
import type { Picture, PictureMode } from "../../bench/picture";
import { useDraft, useDraftState } from "../../draft/context";
import { say, told } from "../../text/say";
import { Typed } from "../../ui/Typed";
import { useTyped } from "../../ui/useTyped";

export interface PictureState {
  mode: PictureMode;
  points: [number, number][];
}

interface Props {
  state: PictureState;
  onState: (s: PictureState) => void;
}

/** A photograph behind the outline: picked, placed, and scaled by two points. */
export function PicturePanel({ state, onState }: Props) {
  const { doc } = useDraftState();
  const picture = doc.picture;
  return (
    <details className="border-t border-line pt-2" open={!!picture} data-testid="picture-panel">
      <summary className="narrow cursor-pointer text-lg">{say("picture.title")}</summary>
      <div className="grid gap-2 pt-1">
        {picture ? <Placed picture={picture} state={state} onState={onState} /> : <PickFile />}
      </div>
    </details>
  );
}

function PickFile() {
  const draft = useDraft();
  const t = useTyped();
  const take = async (file: File | undefined) => {
    if (!file) return;
    await draft.flush();
    const { id, version } = draft.get().piece;
    const a = await t.attempt(() => sendPicture(id, version, file));
    if (a) draft.replace(a);
  };
  const wrong = t.errorOf("file")?.message ?? t.general;
  return (
    <label className="grid gap-1">
      <span className="text-sm text-quiet">{say("picture.pick")}</span>
      <input
        type="file"
        accept="image/png,image/jpeg"
        data-field="picture"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      {wrong && (
        <span role="alert" className="text-ember">
          {wrong}
        </span>
      )}
    </label>
  );
}

function Placed({ picture, state, onState }: Props & { picture: Picture }) {
  const draft = useDraft();
  const units = useUnits();
  const { typed, errors } = useDraftState();
  const [apart, setApart] = useState("");
  const field = (name: string, label: string, value: number) => (
    <Typed
      field={`picture.${name}`}
      label={told(label)}
      value={value}
      text={typed[`picture.${name}`]}
      error={errors[`picture.${name}`]}
      onType={(t) => draft.type(`picture.${name}`, t)}
      onRevert={() => draft.revert(`picture.${name}`)}
      onDone={() => void draft.flush()}
    />
  );
  const toggle = (mode: PictureMode) => onState({ mode: state.mode === mode ? "none" : mode, points: [] });
  const scale = () => {
    const [a, b] = state.points;
    if (!a || !b) return;
    const at = (p: [number, number]) => `${p[0].toFixed(2)} ${p[1].toFixed(2)}`;
    draft.choose("picture.scale", `${at(a)}; ${at(b)}; ${apart}`);
    onState({ mode: "none", points: state.points });
  };
  const wrong = errors["picture.scale"];
  return (
    <>
      <p className="text-sm text-quiet">{say("picture.help")}</p>
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="press"
          aria-pressed={state.mode === "move"}
          onClick={() => toggle("move")}
          data-testid="picture-move"
        >
          {say("picture.move")}
        </button>
        <button
          type="button"
          className="press"
          aria-pressed={state.mode === "first" || state.mode === "second"}
          onClick={() => toggle("first")}
          data-testid="picture-two"
        >
          {say("picture.two")}
        </button>
        <button type="button" className="press" onClick={() => draft.choose("picture.remove", "")}>
          {say("picture.remove")}
        </button>
      </div>
      {(state.mode === "first" || state.mode === "second") && <p role="status">{say(`picture.${state.mode}`)}</p>}
      {state.points.length === 2 && (
        <form
          className="grid grid-cols-[1fr_auto] items-end gap-x-3"
          onSubmit={(e) => {
            e.preventDefault();
            scale();
          }}
        >
          <Typed
            field="picture.apartMm"
            label={say("picture.apart")}
            value={apart}
            text={apart}
            error={wrong}
            onType={(t) => {
              draft.revert("picture.scale");
              setApart(t);
            }}
            onRevert={() => setApart("")}
            onDone={() => {}}
          />
          <button type="submit" className="press press-act" disabled={!apart.trim()}>
            {say("picture.take")}
          </button>
        </form>
      )}
      <div className="grid grid-cols-2 gap-x-3 gap-y-2" data-units={units}>
        {field("xMm", "picture.x", picture.xMm)}
        {field("yMm", "picture.y", picture.yMm)}
        {field("widthMm", "picture.width", picture.mmPerPx * picture.widthPx)}
        {field("turnDeg", "picture.turn", picture.turnDeg)}
        {field("strengthShare", "picture.fade", picture.strengthShare)}
      </div>
    </>
  );
}
