import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { typedCount } from "../../ui/brief/typedCount";
import { Dialog } from "../../ui/Dialog";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";

export type Score = { name: string; base64: string };
type Props = { score: Score; onClose: () => void };

/** A MIDI or MusicXML file: which part of it, and which bars, become a drill. */
export function OpenScore({ score, onClose }: Props) {
  const navigate = useNavigate();
  const parts = useQuery({
    queryKey: ["score", score.name, score.base64],
    queryFn: () => api.partsOf(score.base64),
    retry: false,
    gcTime: 0,
  });
  const [part, setPart] = useState(0);
  const [first, setFirst] = useState("1");
  const [last, setLast] = useState<string | null>(null);
  const chosen = parts.data?.parts[part];
  const until = last ?? String(chosen?.most_bars ?? 1);
  const once = useOnce();
  const take = useMutation({
    mutationFn: () => {
      const asked = {
        part,
        first_bar: typedCount(first),
        last_bar: typedCount(until),
        title: score.name.replace(/\.[^.]*$/, "").slice(0, 200),
      };
      return api.takeBars({ ...asked, base64: score.base64, key: once.key(asked) });
    },
    onSuccess: (taken) => {
      once.done();
      forgetWork();
      if (taken.said.length === 0) void navigate(`/bench/${taken.kept.id}`);
    },
  });
  return (
    <Dialog title={score.name} onClose={onClose}>
      {parts.isPending && <Loading what="the score" />}
      {parts.isError && <Problem error={parts.error} />}
      {parts.data && !take.data && (
        <form
          className="space-y-3"
          onSubmit={(event) => {
            event.preventDefault();
            take.mutate();
          }}
        >
          <label className="block">
            <span className="text-soft">Part</span>
            <select
              className="field"
              value={part}
              onChange={(event) => {
                setPart(Number(event.target.value));
                setLast(null);
              }}
            >
              {parts.data.parts.map((one, index) => (
                <option key={one.words} value={index}>
                  {one.words}
                </option>
              ))}
            </select>
          </label>
          <div className="flex gap-3">
            <label className="block flex-1">
              <span className="text-soft">From bar</span>
              <input
                className="field"
                inputMode="numeric"
                value={first}
                onChange={(event) => setFirst(event.target.value)}
              />
            </label>
            <label className="block flex-1">
              <span className="text-soft">to bar</span>
              <input
                className="field"
                inputMode="numeric"
                value={until}
                onChange={(event) => setLast(event.target.value)}
              />
            </label>
          </div>
          {take.isError && <Problem error={take.error} />}
          <button type="submit" className="button button-first" disabled={take.isPending}>
            Make a drill of it
          </button>
        </form>
      )}
      {take.data && (
        <div className="space-y-3">
          {take.data.said.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          <button
            type="button"
            className="button button-first"
            onClick={() => void navigate(`/bench/${take.data.kept.id}`)}
          >
            To the drill
          </button>
        </div>
      )}
    </Dialog>
  );
}
