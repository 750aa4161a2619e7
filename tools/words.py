"""Make the spoken words that ship with Ripresa: ripresa/formats/words.flac, and where each lies in it.

Run by ``make words`` when a way of counting is added; needs Debian's espeak-ng.
"""

import json

import numpy as np
import soundfile

from ripresa.core.pitch import LETTERS
from ripresa.core.rhythm import SYLLABLES
from ripresa.formats.speaker import RATE, spoken
from ripresa.formats.words import INDEX, SOUND

#: Words that are not said as they are written; in double brackets the synthesiser's own letters for sounds.
SAID = {
    "&": "[[@nd]]",
    "e": "[[i:]]",
    "a": "[[V]]",
    "7": "[[sEv]]",
    "11": "[[lEv@n]]",
    "A": "[[eI]]",
}
NUMBERS = [str(number) for number in range(1, 17)]
OTHERS = ["&", "e", "a", "trip", "let", "and", "ready", "set", "go", "play", "rest", "one", "two", "three", "four"]
SIGNS = {"♯": "sharp", "♭": "flat"}
#: Steps of the samples, in parts of the greatest: twelve bits are plenty for speech, and half the size.
STEPS = 2**11


def texts() -> dict[str, str]:
    """Return each word with what the synthesiser is given for it."""
    found = {word: SAID.get(word, word) for word in (*NUMBERS, *OTHERS)}
    for syllable in sorted({one for words in SYLLABLES.values() for one in words}):
        found[syllable] = f"[[{syllable.replace('i', 'i:').replace('a', 'A:')}]]"
    for letter in LETTERS:
        found[letter] = SAID.get(letter, letter)
        found |= {letter + sign: f"{found[letter]} {name}" for sign, name in SIGNS.items()}
    return found


def main() -> None:
    sounds = {word: spoken(text) for word, text in texts().items()}
    starts = np.cumsum([0, *(len(sound) for sound in sounds.values())])
    index = {word: [int(start), len(sound)] for (word, sound), start in zip(sounds.items(), starts, strict=False)}
    coarse = np.rint(np.concatenate(list(sounds.values())) * STEPS) / STEPS
    soundfile.write(SOUND, coarse, RATE, subtype="PCM_16")
    INDEX.write_text(json.dumps(index, ensure_ascii=False, indent=0) + "\n", "utf-8")
    print(f"{len(sounds)} words, {starts[-1] / RATE:.1f} s, {SOUND.stat().st_size / 1000:.0f} kB")


if __name__ == "__main__":
    main()
