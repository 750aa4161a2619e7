"""The composite: what two hands strike together, as one line that can be tapped, counted and measured."""

from collections.abc import Iterator, Sequence

from ripresa.core.grid import Event, altered


def syllables_of(phrase: str) -> tuple[str, ...]:
    """Return the syllables of a phrase, parted by spaces or hyphens.

    >>> syllables_of("to-ge-ther now")
    ('to', 'ge', 'ther', 'now')
    """
    return tuple(phrase.replace("-", " ").split())


def composite(right: Sequence[Event], left: Sequence[Event], phrase: str = "") -> Iterator[Event]:
    """Yield one line of two: a note wherever one hand strikes, held as long as one of them sounds.

    Both tile the same time. A note keeps the slot and the division of the hand that strikes it, of the right one where
    both do; its pitch and its hand are left out, because it is tapped. A phrase is said on its strokes, from
    each leg on.
    """
    said: tuple[int, int] = (-1, 0)
    syllables = syllables_of(phrase)
    onsets = sorted({event.onset for event in (*right, *left)})
    end = max(right[-1].onset + right[-1].length, left[-1].onset + left[-1].length)
    numbers = [0, 0]
    for number, onset in enumerate(onsets):
        until = onsets[number + 1] if number + 1 < len(onsets) else end
        here = []
        for hand, events in enumerate((right, left)):
            while numbers[hand] + 1 < len(events) and events[numbers[hand] + 1].onset <= onset:
                numbers[hand] += 1
            here.append(events[numbers[hand]])
        begins = [event for event in here if event.onset == onset]
        struck = [event for event in begins if event.kind == "note"]
        sounds = any(event.kind in {"note", "hold"} for event in here)
        event = (struck or begins)[0]
        word = event.count
        if struck and syllables:
            number_said = said[1] if said[0] == event.leg else 0
            word, said = syllables[number_said % len(syllables)], (event.leg, number_said + 1)
        yield altered(
            event,
            count=word,
            length=until - onset,
            kind="note" if struck else "hold" if sounds else "rest",
            pitch=None,
            chord=None,
            stroke=None,
            touch=None,
            slurred=False,
            accent=max((one.accent for one in struck), key=_WEIGHT.__getitem__) if struck else "plain",
            layer="both",
        )


_WEIGHT = {"ghost": 0, "plain": 1, "accent": 2}
