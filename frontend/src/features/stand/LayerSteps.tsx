import type { Performance } from "../../api/client";

type Props = { layers: Performance["layers"]; now: number | null; onChange: (layers: number | null) => void };

/** The layers of a drill one by one, in the order in which they enter: each press brings the next one in. */
export function LayerSteps({ layers, now, onChange }: Props) {
  if (layers.length === 0) return null;
  return (
    <ol className="flex flex-wrap items-center gap-2" aria-label="Layers, one by one">
      {layers.map((layer, index) => (
        <li key={layer.name}>
          <button
            type="button"
            className="button button-small"
            aria-pressed={layer.is_there}
            onClick={() => onChange(index + 1 === layers.length ? null : index + 1)}
          >
            {index === 0 ? "" : "+ "}
            {layer.name}
            {layer.bar > 1 && ` from bar ${layer.bar}`}
          </button>
        </li>
      ))}
      <li className="text-soft">
        {now === null ? "All of them are there." : "The others keep their time in silence."}
      </li>
    </ol>
  );
}
