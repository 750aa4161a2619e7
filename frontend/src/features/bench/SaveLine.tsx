import type { SaveState } from "./useAutosave";

type Props = {
  state: SaveState;
  onVersions: () => void;
  onKeepMine: () => Promise<void>;
  onTakeTheirs: () => Promise<void>;
};

/** Whether the drill is kept, and where it is if not. */
export function SaveLine({ state, onVersions, onKeepMine, onTakeTheirs }: Props) {
  switch (state.kind) {
    case "kept":
      return (
        <button
          type="button"
          className="text-clean-text font-semibold underline-offset-4 hover:underline"
          onClick={onVersions}
        >
          ✓ kept, version {state.version}
        </button>
      );
    case "saving":
      return <span className="text-soft">keeping it …</span>;
    case "lost":
      return (
        <span role="status" className="text-care-text font-semibold">
          {state.isHere
            ? "kept on this computer; sent when the server answers"
            : "not kept yet: this browser has no room for it. Leave this page open until the server answers"}
          {state.message && <span className="sr-only">: {state.message}</span>}
        </span>
      );
    case "refused":
      return (
        <span role="status" className="text-error font-semibold">
          not kept yet: {state.message}
        </span>
      );
    case "conflict":
      return (
        <span role="alert" className="text-error font-semibold">
          {state.message}{" "}
          <button type="button" className="button button-small" onClick={() => void onKeepMine()}>
            Keep mine as the newest
          </button>{" "}
          <button type="button" className="button button-small" onClick={() => void onTakeTheirs()}>
            Take theirs
          </button>{" "}
          <button type="button" className="button button-small button-quiet" onClick={onVersions}>
            See the versions
          </button>
        </span>
      );
  }
}
