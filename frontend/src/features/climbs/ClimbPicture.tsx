import { useSearchParams } from "react-router";
import type { Climb } from "../../api/client";
import { SpeedMap } from "./SpeedMap";
import { Treads } from "./Treads";

/** The climb as a staircase, or as its way through the map of tempo and division. */
export function ClimbPicture({ climb }: { climb: Climb }) {
  const [search, setSearch] = useSearchParams();
  const isMap = search.get("view") === "map";
  const show = (view: string) => setSearch(view === "map" ? { view } : {}, { replace: true });
  return (
    <section className="card-plain" aria-label="The climb as a picture">
      <div className="flex gap-2 mb-2">
        <button
          type="button"
          className={`button button-small ${isMap ? "button-quiet" : ""}`}
          aria-pressed={!isMap}
          onClick={() => show("treads")}
        >
          The treads
        </button>
        <button
          type="button"
          className={`button button-small ${isMap ? "" : "button-quiet"}`}
          aria-pressed={isMap}
          onClick={() => show("map")}
        >
          The map
        </button>
      </div>
      {isMap ? (
        <SpeedMap climb={climb} />
      ) : (
        <Treads treads={climb.treads} sign={climb.sign} targetLabel={climb.target_label} />
      )}
    </section>
  );
}
