import { useMutation, useQuery } from "@tanstack/react-query";
import { api } from "../../api/client";
import { queryClient, setupsQuery } from "../../api/queries";
import { Problem } from "../../ui/Problem";

const NAMES: Record<string, string> = { taps: "Taps", midi: "MIDI", microphone: "The microphone" };

/** Every set-up of which something is known: how late it is, how old that is, and its pads. */
export function SetUps() {
  const setups = useQuery(setupsQuery);
  const forget = useMutation({
    mutationFn: (id: number) => api.forgetSetup(id),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["setups"] }),
  });
  const failed = setups.error ?? forget.error;
  return (
    <section className="card-plain mb-4">
      <h2>Set-ups and their latency</h2>
      {failed && <Problem error={failed} />}
      {setups.data?.setups.length === 0 && (
        <p>
          None is measured yet. On the stand, “Measure the latency” measures the one that is in use; another
          device or browser is another set-up.
        </p>
      )}
      <ul className="grid gap-2">
        {setups.data?.setups.map((one) => {
          const name = [NAMES[one.source] ?? one.source, one.device].filter(Boolean).join(": ");
          const pads = Object.keys(one.pads).length;
          return (
            <li key={one.id} className="flex flex-wrap items-baseline gap-x-3">
              <strong>{name}</strong>
              <span className="text-soft">{one.place}</span>
              <span>{one.sentences.join(" ")}</span>
              {pads > 0 && <span>{pads === 1 ? "1 pad is learnt." : `${pads} pads are learnt.`}</span>}
              <button
                type="button"
                className="button button-small button-quiet"
                aria-label={`Forget ${name}`}
                onClick={() => one.id !== null && forget.mutate(one.id)}
              >
                Forget
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
