import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Climb, Schemas } from "../../api/client";
import { mapQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { Scrolling } from "../../ui/Scrolling";

type Place = Schemas["PlaceShape"];
type Way = Schemas["WayShape"];

const SIGNS = { clean: "●", shaky: "○", none: "" };
const WORDS = { clean: "clean there", shaky: "shaky there", none: "not played" };

/** The map: tempo across, divisions up, notes a second in each place; a place is a press away from being played. */
export function SpeedMap({ climb }: { climb: Climb }) {
  const map = useQuery(mapQuery(climb.id));
  if (map.isPending) return <Loading what="the map" />;
  if (map.isError) return <Problem error={map.error} onRetry={() => void map.refetch()} />;
  const { tempi, rows, way, twins } = map.data;
  return (
    <>
      <p className="text-soft text-sm mb-2">
        Notes a second at every tempo and division; press a place to go there.
      </p>
      <Scrolling name="The map of tempi and divisions">
        <table className="speed-map">
          <thead>
            <tr>
              <th scope="col">
                <span className="sr-only">notes a beat</span>
              </th>
              {tempi.map((bpm) => (
                <th key={bpm} scope="col" className="font-normal">
                  {bpm}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <tr key={row[0]?.division}>
                <th scope="row">
                  <span className="text-lg text-primary">{row[0]?.division_label}</span>{" "}
                  <span className="text-soft text-xs font-normal">a beat</span>
                </th>
                {row.map((place, column) => (
                  <td key={place.bpm} className="relative p-0.5">
                    <Cell place={place} climb={climb} edges={edgesOf(row, column)} />
                    {index === 0 && column === 0 && (
                      <WayThrough way={way} columns={tempi.length} rows={rows.length} />
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolling>
      <p className="text-soft text-sm mt-2">
        ● clean there ○ shaky there, the line: the way of the climb, dotted where it has still to go
        {rows.some((row) => row.some((place) => place.inside)) && <>, outlined: {climb.target_words}</>}
      </p>
      {twins && <p className="text-soft text-sm">{twins}</p>}
    </>
  );
}

type CellProps = { place: Place; climb: Climb; edges: string };

function Cell({ place, climb, edges }: CellProps) {
  const isHere = place.rung === climb.rung;
  const to = place.rung
    ? `/stand/climb/${climb.id}?rung=${place.rung}`
    : `/stand/climb/${climb.id}?bpm=${place.bpm}&only=${place.division}`;
  const name = [
    `${place.nps} notes a second at ${place.bpm_label}, ${place.division_label} a beat`,
    place.rung ? `rung ${place.rung}${isHere ? ", where the climb stands" : ""}` : "",
    WORDS[place.played],
    place.inside ? "inside the band" : "",
  ];
  return (
    <Link
      to={to}
      aria-label={name.filter(Boolean).join(", ")}
      className={`map-place map-${isHere ? "here" : place.played} map-weight-${Math.round(place.weight * 6)} ${edges}`}
    >
      <span className={place.played === "clean" || isHere ? "font-bold" : ""}>{place.nps}</span>
      <span aria-hidden="true" className="map-sign">
        {SIGNS[place.played]}
      </span>
    </Link>
  );
}

/** Which sides of a place are the outline of the band. */
function edgesOf(row: readonly Place[], column: number): string {
  if (!row[column]?.inside) return "";
  const left = row[column - 1]?.inside ? "" : "map-band-left";
  const right = row[column + 1]?.inside ? "" : "map-band-right";
  return `map-band ${left} ${right}`;
}

type WayProps = { way: readonly Way[]; columns: number; rows: number };

/** The way of the climb, drawn over the places from the first of them: done, then dotted. */
function WayThrough({ way, columns, rows }: WayProps) {
  const now = way.findIndex((one) => one.state === "now");
  const line = (part: readonly Way[]) => part.map((one) => `${one.column + 0.5},${one.row + 0.72}`).join(" ");
  return (
    <svg
      className="map-way"
      viewBox={`0 0 ${columns} ${rows}`}
      preserveAspectRatio="none"
      style={{ width: `${columns * 100}%`, height: `${rows * 100}%` }}
      aria-hidden="true"
    >
      <polyline className="map-way-done" points={line(way.slice(0, Math.max(0, now) + 1))} />
      <polyline className="map-way-ahead" points={line(way.slice(Math.max(0, now)))} />
    </svg>
  );
}
