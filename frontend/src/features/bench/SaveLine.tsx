import type { SaveState } from "./useAutosave";

type Props = {
  state: SaveState;
  onVersions: () => void;
  onKeepMine: () => Promise<void>;
  onTakeTheirs: () => Promise<void>;
  /** Whose climb it was opened from, as long as it is not said whom a change is for. */
  forWhom: ForWhom | null;
};

export type ForWhom = { name: string; onOwn: () => void; onEverybody: () => void; isBusy: boolean };

/** Whether the drill is kept, and where it is if not. */
export function SaveLine({ state, onVersions, onKeepMine, onTakeTheirs, forWhom }: Props) {
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
    case "undecided":
      return forWhom && <Undecided {...forWhom} version={state.version + 1} />;
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

/** A change of what one student plays is his own, or everybody’s: said before it is kept. */
function Undecided({ name, onOwn, onEverybody, isBusy, version }: ForWhom & { version: number }) {
  return (
    <span role="status" className="for-whom flex flex-wrap items-center gap-2">
      <span className="text-care-text font-semibold">Not kept yet. Whom is the change for?</span>
      <button type="button" className="button button-small" disabled={isBusy} onClick={onOwn}>
        For {name} only
      </button>
      <button type="button" className="button button-small" disabled={isBusy} onClick={onEverybody}>
        For everybody, as version {version}
      </button>
    </span>
  );
}
