"""A sentence and which of its stretches are words to press on the bench."""

from dataclasses import dataclass

#: Around a word while a sentence is put together: signs that no text may hold.
_OPEN, _CLOSE = "\ue000", "\ue001"


@dataclass(frozen=True, slots=True)
class Run:
    """A stretch of a sentence, and whether it is one of its words."""

    text: str
    is_word: bool = False


def word(text: object) -> str:
    """Return a text as a word of a sentence that is put together."""
    return f"{_OPEN}{_plain(str(text))}{_CLOSE}"


def _plain(text: str) -> str:
    return text.replace(_OPEN, "").replace(_CLOSE, "")


def runs(sentence: str) -> tuple[Run, ...]:
    """Return a sentence that was put together, stretch by stretch."""
    found = []
    for number, piece in enumerate(sentence.split(_OPEN)):
        word, closed, rest = piece.partition(_CLOSE)
        if number and closed:
            found += [Run(word, is_word=True), Run(rest)]
        else:
            found.append(Run(piece))
    return tuple(run for run in found if run.text)


def times(count: int) -> str:
    """Return how often: once, twice, 3 times."""
    return {1: "once", 2: "twice"}.get(count, f"{count} times")
