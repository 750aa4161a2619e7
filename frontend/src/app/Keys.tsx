import { Link } from "react-router";
import { Dialog } from "../ui/Dialog";
import { LettersSwitch } from "../ui/LettersSwitch";

const KEYS: readonly [string, string][] = [
  ["1 – 6", "Today, Students, Drills, Climbs, Stand, Log"],
  ["U", "sums, over any place"],
  ["N", "a new drill"],
  ["/", "say a drill, or what changes of it"],
  ["P", "put what you look at on the stand"],
  ["Ctrl Z, Ctrl Shift Z", "undo and redo while a drill is made"],
  ["Space", "start and stop on the stand, wherever you are on it but in a field"],
  ["O", "set up, on the stand"],
  ["J  F", "tap along"],
  ["T", "tap the tempo on the stand"],
  [
    "←  →  Home  End",
    "from note to note on the rail; Enter presses a place, C its click, H a hit, O an ornament",
  ],
  ["[  ]", "slower, faster: one rung"],
  ["S", "slow and fast in turn, on the stand"],
  ["C", "the drill and what it is compared with in turn, on the stand"],
  ["H", "here is beat 1, while the beat is hidden"],
  ["M", "mute the click"],
  ["L", "large, for reading from two metres"],
  ["Enter", "take the offered step"],
  ["Esc", "close what is open, or stop what plays"],
  ["?", "these keys, and what the words mean"],
];

/** All keys. None of them works while a field is being typed in. */
export function Keys({ onClose, onWords }: { onClose: () => void; onWords: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="font-semibold">{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <p className="text-soft mt-4">They rest while you type in a field.</p>
      <LettersSwitch />
      <div className="flex flex-wrap gap-2 mt-3">
        <button type="button" className="button" onClick={onWords}>
          What the words mean
        </button>
        <Link className="button" to="/guide" onClick={onClose}>
          The guide of ten minutes
        </Link>
      </div>
    </Dialog>
  );
}
