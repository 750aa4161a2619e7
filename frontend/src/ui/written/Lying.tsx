import type { Schemas } from "../../api/client";
import { useOpposite } from "../useOpposite";
import { KeysPicture } from "./KeysPicture";
import { NeckPicture } from "./NeckPicture";

/** Where the notes lie: a neck a position, the keys, or what a wind’s notes sound as. */
export function Lying({ lies }: { lies: Schemas["LiesShape"] }) {
  const [opposite] = useOpposite();
  const nothing = lies.necks.length === 0 && !lies.keys && lies.names.length === 0;
  if (nothing) return <p className="text-soft">This drill has no pitches.</p>;
  return (
    <div className={`card-plain mt-1 overflow-x-auto ${opposite ? "from-opposite" : ""}`}>
      {lies.necks.length > 0 && (
        <ul className="flex flex-wrap gap-x-6 gap-y-2" aria-label="The neck, position by position">
          {lies.necks.map((neck) => (
            <li key={neck.name}>
              <NeckPicture neck={neck} strings={lies.strings} />
            </li>
          ))}
        </ul>
      )}
      {lies.keys && <KeysPicture keys={lies.keys} />}
      {lies.names.length > 0 && (
        <table className="table-plain">
          <caption className="sr-only">Each note as it is written, and as it sounds</caption>
          <tbody>
            {(["written", "sounding"] as const).map((way) => (
              <tr key={way}>
                <th scope="row" className="text-soft font-normal text-left pr-3">
                  {way === "written" ? "written" : "sounds as"}
                </th>
                {lies.names.map((name) => (
                  <td key={name.written} className="px-2 tabular-nums">
                    {name[way]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
