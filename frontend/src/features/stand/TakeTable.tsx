import type { Schemas } from "../../api/client";
import { Scrolling } from "../../ui/Scrolling";

type Props = { figures: Schemas["FiguresShape"]; onNote: (event: number) => void };

/** The same figures as a table, for who does not see the pictures; each slot leads to its first note on the rail. */
export function TakeTable({ figures, onNote }: Props) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer text-primary font-semibold">All of it in numbers</summary>
      <p className="text-sm mt-1">
        {figures.matched} of {figures.due} notes, {figures.missed} missed, {figures.extra} extra
        {figures.wrong > 0 && `, ${figures.wrong} of another pitch`}.{" "}
        {figures.bias && (
          <>
            Bias <strong>{figures.bias.label}</strong> {figures.bias.plus_minus} ({figures.bias_note}).{" "}
          </>
        )}
        {figures.spread && (
          <>
            Spread <strong>{figures.spread.label}</strong> {figures.spread.plus_minus}.{" "}
          </>
        )}
        Tempo: {figures.drift_note}
        {figures.drift && `, ${figures.drift.label} ${figures.drift.plus_minus}`}.
      </p>
      <Scrolling name="Each slot of each division">
        <table className="text-sm mt-1 w-full">
          <caption className="sr-only">Each slot of each division: habit, share of the beat, notes</caption>
          <thead>
            <tr className="text-left">
              <th scope="col">division</th>
              <th scope="col">slot</th>
              <th scope="col">habit</th>
              <th scope="col">share</th>
              <th scope="col">notes</th>
              <th scope="col">on the rail</th>
            </tr>
          </thead>
          <tbody>
            {figures.legs.flatMap((leg) =>
              leg.slots.map((slot) => {
                const event = slot.dots.find((dot) => dot.event >= 0)?.event;
                return (
                  <tr key={`${leg.division} ${slot.slot}`}>
                    <td>{leg.division} a beat</td>
                    <th scope="row" className="text-left">
                      {slot.count}
                    </th>
                    <td>{slot.habit ? `${slot.habit.label} ${slot.habit.plus_minus}` : "too few"}</td>
                    <td>{slot.share ?? "not heard"}</td>
                    <td>{slot.dots.length}</td>
                    <td>
                      {event !== undefined && (
                        <button
                          type="button"
                          className="text-primary underline"
                          onClick={() => onNote(event)}
                        >
                          show “{slot.count}”
                        </button>
                      )}
                    </td>
                  </tr>
                );
              }),
            )}
          </tbody>
        </table>
      </Scrolling>
      <ul className="text-sm mt-1">
        {figures.seams.map((seam) => (
          <li key={`${seam.name} ${seam.sentence}`}>
            Change {seam.name}: {seam.sentence}
          </li>
        ))}
        {figures.landings.map((landing) => (
          <li key={landing}>Landing {landing}</li>
        ))}
        {figures.marks
          .filter((mark) => mark.kind === "lost")
          .map((mark) => (
            <li key={`${mark.at}`}>
              {mark.label}{" "}
              <button type="button" className="text-primary underline" onClick={() => onNote(mark.event)}>
                show it
              </button>
            </li>
          ))}
      </ul>
    </details>
  );
}
