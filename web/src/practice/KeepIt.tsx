import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, ask, Refused } from "../api/client";
import { useShop } from "../api/hooks";
import { say } from "../text/say";
import type { Play } from "./usePlay";

/** Puts what was done on the sheet, under somebody's name. */
export function KeepIt({ play, body }: { play: Play; body: object }) {
  const shop = useShop();
  const [who, setWho] = useState(() => localStorage.getItem("coldember.practice.who") ?? "");
  const [told, setTold] = useState("");
  const [wrong, setWrong] = useState("");
  const queries = useQueryClient();
  const names = shop.data?.smiths.map((s) => s.name) ?? [];
  const keep = async () => {
    setTold("");
    setWrong("");
    try {
      localStorage.setItem("coldember.practice.who", who);
      await ask(
        api.POST("/api/v1/practice/sheet", {
          body: { who, undone: play.undone, ...body, seed: play.seed, actions: play.actions },
        }),
      );
      setTold(say("practice.kept"));
      await queries.invalidateQueries({ queryKey: ["practised"] });
    } catch (e) {
      setWrong(e instanceof Refused ? (e.problem.fields?.[0]?.message ?? e.problem.detail) : say("ui.offline"));
    }
  };
  return (
    <form
      className="typed flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      <label className="grid gap-0.5">
        <span className="text-sm text-quiet">{say("practice.who")}</span>
        <input
          value={who}
          onChange={(e) => setWho(e.target.value)}
          list="practice-names"
          className="w-44"
          data-field="practice.who"
        />
        <datalist id="practice-names">
          {names.map((n) => (
            <option key={n} value={n} />
          ))}
        </datalist>
      </label>
      <button
        type="submit"
        className="press min-h-11"
        disabled={!who.trim() || play.actions.length === 0}
        data-testid="practice-keep"
      >
        {say("practice.keep")}
      </button>
      <Link to="/practice/sheet" className="py-2 underline">
        {say("practice.sheet")}
      </Link>
      {told && (
        <p role="status" className="w-full">
          {told}
        </p>
      )}
      {wrong && (
        <p role="alert" className="w-full text-ember">
          {wrong}
        </p>
      )}
    </form>
  );
}
