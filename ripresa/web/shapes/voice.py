"""The shape of the spoken voice: where each word lies in the file that holds them all."""

from ripresa.formats.speaker import ANCHOR, RATE
from ripresa.formats.words import index
from ripresa.web.shapes.choices import VoiceChoice, WordPlace


def voice_choice() -> VoiceChoice:
    """Return the places of all words that ship, in seconds."""
    return VoiceChoice(
        words={word: WordPlace(start=start / RATE, seconds=length / RATE) for word, (start, length) in index().items()},
        anchor=ANCHOR,
    )
