"""Groups, the lead and the accent walk, in sentences."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

from ripresa.core.drill.accents import NoAccents
from ripresa.core.exact import Fraction, decimal, label, plural
from ripresa.core.reading import Reading, read
from ripresa.core.reports.groups import Groups, Start
from ripresa.core.reports.lead import LeadHome
from ripresa.core.reports.told.paragraph import Paragraph, a_beat, which
from ripresa.core.reports.walk import WalkHome
from ripresa.core.rhythm import division_name, span_seconds

_MOST_STARTS = 8
#: The parts of a material in which a rhythm is typed.
_TYPED = ("text", "pattern", "rhythm")
_MOST_HIT = 17


@dataclass(frozen=True, slots=True)
class GroupRow:
    """When the groups of a leg are home, as a row beside those of other legs.

    Args:
        on: What the groups are on.
        on_beat, on_bar: After how much a group starts on a beat, on a bar line again.
        stage: Whether the leg lasts as long. starts: Beats from the start of the leg at which groups start.
        beats: How long the groups are until they are home, or the leg where none is.
        also: What else is told of them.
    """

    on: str
    on_beat: str
    on_bar: str
    stage: str
    starts: tuple[float, ...]
    beats: float
    also: tuple[str, ...]


def group_rows(found: Sequence[Groups], reading: Reading) -> Iterator[GroupRow]:
    """Yield a row for each leg whose groups leave the beat and run on."""
    for one in (one for one in found if one.runs_on):
        beat, bar = one.beat_home, one.bar_home
        yield GroupRow(
            on=f"{division_name(one.leg.divisions, reading.meter.counted)}{which(one.leg, reading)}",
            on_beat=f"{plural(beat.notes, 'note')}, {plural(beat.beats, 'beat')}" if beat else "never",
            on_bar=f"{plural(bar.bars, 'bar')}, {plural(bar.groups, 'group')}" if bar else "never",
            stage="comes home" if one.reaches_home else f"not within {plural(one.leg.notes, 'note')}",
            starts=tuple(float(start.at - one.leg.start) for start in one.starts),
            beats=float(bar.beats if bar else one.leg.beats),
            also=tuple(_also(one)),
        )


def groups_told(found: Groups, reading: Reading) -> Iterator[Paragraph]:
    """Yield where the groups of a leg start and when they come home; nothing where they never leave the beat."""
    title = f"Groups of {found.size} on {a_beat(found.leg)}{which(found.leg, reading)}"
    sentences = [*(_anew(found) if found.cut else _running(found)), *_also(found)]
    if sentences:
        yield Paragraph(title, tuple(sentences), "" if found.cut else starts_told(found.starts))


def _also(found: Groups) -> Iterator[str]:
    """Yield what is told of groups besides their homes: which notes the beats hit, and what follows a line."""
    hit = beats_hit_told(found) if found.runs_on else ""
    if hit:
        yield hit
    if found.end:
        yield f"What follows stands on bar {found.end.bar}, beat {_inside(found.end)}."


def starts_told(starts: Sequence[Start]) -> str:
    """Return where groups start, bar by bar: ``1, 2e, 3& | 2, 3e``."""
    bars = (", ".join(start.short for start in inside) for _, inside in groupby(starts, key=lambda start: start.bar))
    return " | ".join(bars)


def beats_hit_told(found: Groups) -> str:
    """Return which notes of their groups the beats hit, up to the first again.

    Empty where every beat hits the first, and where not every beat has a note.
    """
    hit = found.beats_hit
    if set(hit) <= {1} or any(one < 1 or one.denominator > 1 for one in found.leg.divisions):
        return ""
    shown = ", ".join(str(note) for note in hit[:_MOST_HIT])
    more = f" (the first again on beat {len(hit)})" if len(hit) > _MOST_HIT else ""
    return f"The beats hit notes {shown} … of the group{more}."


def _running(found: Groups) -> Iterator[str]:
    if not found.crosses_beat:
        return
    beat, bar = found.beat_home, found.bar_home
    if beat is None:
        yield "No group ever starts on a beat again."
        return
    on_beat = f"Home on a beat after {plural(beat.notes, 'note')}, {plural(beat.beats, 'beat')}"
    if bar is None:
        yield f"{on_beat}; never on a bar line."
        return
    yield (
        f"{on_beat}; on a bar line after {plural(bar.notes, 'note')}, {plural(bar.bars, 'bar')}, "
        f"{plural(bar.groups, 'group')}."
    )
    if not found.reaches_home and found.end is None:
        yield f"This leg has {plural(found.leg.notes, 'note')}: it does not come home."


def _anew(found: Groups) -> Iterator[str]:
    if len(set(found.cut)) > 1:
        sizes = " + ".join(str(size) for size in found.cut)
        yield f"Cut off where they start anew: {sizes} notes in the first bar."
    if found.restart == "beat":
        yield "They begin again at each beat, so they come home every beat."
    elif len(set(found.cut)) > 1:
        yield "They begin again at each bar line, so they come home every bar."


def lead_told(found: Sequence[LeadHome], reading: Reading) -> Iterator[Paragraph]:
    """Yield when the lead of each leg comes home; nothing where every beat that has a note starts alike."""
    for home in found:
        if home.beats is None or home.bars is None or len({one for one in home.starts if one}) < 2:
            continue
        title = f"Lead on {a_beat(home.leg)}{which(home.leg, reading)}"
        starts = " ".join(one or "·" for one in home.starts[:_MOST_STARTS])
        more = " …" if len(home.starts) > _MOST_STARTS else ""
        yield Paragraph(
            title,
            (
                f"The lead is home after {plural(home.beats, 'beat')}, on a bar line after {plural(home.bars, 'bar')}. "
                f"Beats start with {starts}{more}.",
            ),
        )


def walk_told(walk: WalkHome, reading: Reading, bpm: Fraction) -> Paragraph:
    """Return an accent walk in words."""
    named = ", ".join(" ".join([word, "/".join(hands)]).strip() for word, hands in walk.stations)
    sentences = [
        f"{plural(len(walk.stations), 'station')}: {named}.",
        f"Home after {plural(walk.bars, 'bar')}, {plural(walk.notes, 'note')}, "
        f"{decimal(span_seconds(walk.beats, bpm), 1)} s.",
    ]
    width = getattr(reading.drill.accents, "width", 1)
    if width > 1:
        sentences.append(f"Every place is accented at {width} stations, once on each place of the group.")
    if walk.gap is not None and walk.home_gap is not None:
        sentences.append(
            f"From one station to the next {plural(walk.gap, 'slot')}, on the return home "
            f"{label(Fraction(walk.home_gap))}."
        )
    if walk.walked_bars < walk.bars:
        sentences.append(f"This leg lasts {plural(walk.walked_bars, 'bar')}: it does not come home.")
    return Paragraph(f"Accent walk on {a_beat(walk.leg)}{which(walk.leg, reading)}", tuple(sentences))


def accents_added(reading: Reading) -> str:
    """Return that typed accents and those of the drill add up, in a sentence; empty where they do not."""
    drill = reading.drill
    written = any(">" in text for name in _TYPED if isinstance(text := getattr(drill.material, name, None), str))
    if not written or isinstance(drill.accents, NoAccents):
        return ""
    alone = sum(event.accent == "accent" for event in read(replace(drill, accents=NoAccents())).notes)
    both = sum(event.accent == "accent" for event in reading.notes)
    if alone == both:
        return ""
    return (
        f"The accents that you typed and those of the drill add up: {both} in a pass, {alone} of them typed with “>”. "
        "Should those stand alone?"
    )


def _inside(start: Start) -> str:
    return f"{start.beat}, {start.name}" if start.name else str(start.beat)
