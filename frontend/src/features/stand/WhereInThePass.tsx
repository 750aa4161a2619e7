import type { Schemas } from "../../api/client";

type Props = {
  figures: Schemas["FiguresShape"];
  /** Points at a note on the rail; null where there is none. */
  onNote: ((event: number) => void) | null;
};

/** Notes of the drill that are off each time round, with what the hand does there; and how far the click was left. */
export function WhereInThePass({ figures, onNote }: Props) {
  const places = figures.places.filter((place) => place.outside);
  if (!places.length && !figures.furthest) return null;
  return (
    <section className="mt-2" aria-label="Where in the pass">
      <h2 className="font-bold text-primary">Where in the pass</h2>
      <ul className="text-sm">
        {places.map((place) => (
          <li key={place.event}>
            <strong>{place.name}</strong> {place.sentence}{" "}
            {place.reason && <span className="text-soft">{place.reason} </span>}
            {onNote && (
              <button type="button" className="text-primary underline" onClick={() => onNote(place.event)}>
                show it
              </button>
            )}
          </li>
        ))}
        {figures.furthest && <li>Furthest: {figures.furthest}</li>}
      </ul>
    </section>
  );
}
