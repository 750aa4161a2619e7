"""What two hands do against each other, in sentences."""

from collections.abc import Iterator, Sequence

from ripresa.core.exact import Fraction, decimal, division_label, plural
from ripresa.core.reading import Reading
from ripresa.core.reports.told.paragraph import Paragraph
from ripresa.core.reports.two_hands import Against, thumbs

_MOST_WORDS = 24
_MOST_PASSES = 8


def two_hands_told(reading: Reading, all_found: Sequence[Against], bpm: Fraction) -> Iterator[Paragraph]:
    """Yield how two hands lie against each other, and where their thumbs pass; nothing where one plays."""
    titles: list[str] = []
    for found in all_found:
        right, left = division_label(*found.right), division_label(*found.left)
        title = f"{right} against {left}" if found.right != found.left else "Two hands"
        # A hand alone is read with its own divisions: legs are told apart by what is said of both hands in them.
        leg = f", leg {found.leg.index + 1}" if title in titles else ""
        titles.append(title)
        yield Paragraph(f"{title}{leg}", tuple(_against(found, reading.drill.second.phrase, bpm)))
    passed = thumbs(reading)
    if passed:
        yield Paragraph(
            "Thumbs",
            (
                f"Thumbs pass: right at {_notes(passed.right)}, left at {_notes(passed.left)}. "
                + (f"Both at once at {_notes(passed.together)}." if passed.together else "Never both at once."),
                f"The same finger in both hands on {passed.mirrored} of {plural(passed.met, 'note')} that they share.",
            ),
        )


def _against(found: Against, phrase: str, bpm: Fraction) -> Iterator[str]:
    cycle = plural(found.beats, "beat")
    strokes = len(found.strokes)
    words = " ".join(found.words[:_MOST_WORDS]) + (" …" if strokes > _MOST_WORDS else "")
    yield f"{plural(strokes, 'stroke')} in {cycle}: {words}."
    if found.right == found.left and found.right_notes == found.left_notes == strokes:
        yield "Both hands strike together each time."
    elif found.together:
        meet = [word for word, onset in zip(found.words, found.strokes, strict=True) if onset in found.together]
        yield f"Together {plural(len(meet), 'time')}, on {', '.join(meet[:_MOST_WORDS])}."
    else:
        yield "They never strike together."
    if found.gap is not None and strokes > 1:
        first, second = found.gap_from
        share = found.gap / found.beats
        yield (
            f"Smallest gap {decimal(found.gap_seconds(bpm) * 1000, 1)} ms, {first} to {second}: "
            f"{share.numerator}/{share.denominator} of the cycle."
        )
    speeds = (decimal(found.nps(count, bpm), 1) for count in (found.right_notes, found.left_notes, strokes))
    yield "Right {}, left {}, both {} strokes a second.".format(*speeds)
    if found.bars is None:
        yield "They do not meet on a bar line again within sight."
    elif found.bars != 1 or found.beats.denominator > 1:
        yield f"They begin together on a bar line again after {plural(found.bars, 'bar')}."
    if found.phrase:
        if len(found.phrase) == strokes:
            yield f"Said: {phrase.strip()}."
        else:
            yield (
                f"“{phrase.strip()}” has {plural(len(found.phrase), 'syllable')}, and a cycle has "
                f"{plural(strokes, 'stroke')}: write one for each."
            )


def _notes(numbers: Sequence[int]) -> str:
    if not numbers:
        return "no note"
    shown = ", ".join(str(number) for number in numbers[:_MOST_PASSES])
    more = " …" if len(numbers) > _MOST_PASSES else ""
    return f"{'note' if len(numbers) == 1 else 'notes'} {shown}{more}"
