"""The shapes of takes: what is said of them, what they lead to, and their figures."""

from typing import Any, Literal

from ripresa.core.changes import Part, window_of, with_division
from ripresa.core.drill import Drill
from ripresa.core.exact import label, plural
from ripresa.core.playing import Pulse, Spoken
from ripresa.core.reading import Reading
from ripresa.core.studio import Ear, KeptRemedy, Take, TakeLine
from ripresa.core.takes import (
    FaultKind,
    Figures,
    Interval,
    Limits,
    Mark,
    Offer,
    Remedy,
    Source,
    Verdict,
    due_notes,
    fault_name,
    word_of,
)
from ripresa.formats.wire import Shape, WireExact
from ripresa.web.shapes.figures import FiguresShape, TakeMarkShape, drift_words, figures_shape, ms_shape
from ripresa.work.remedies import offered
from ripresa.work.takes import Again, Kept


class OfferShape(Shape):
    """What fits better than what was asked, in one press."""

    kind: Literal["tempo", "division", "again", "by_ear", "evenness", "first_note"]
    label: str
    bpm: WireExact | None
    division: int | None
    drill: Drill | None
    passes: int | None


class RemedyShape(Shape):
    """What a fault leads to: how it is put on the stand."""

    key: str
    name: str
    why: str
    against: str
    bpm: WireExact
    bpm_label: str
    part: Part
    drill: Drill
    spoken: Spoken
    say_bars: int
    pulse: Pulse | None


class KeptRemedyShape(RemedyShape):
    """A remedy that was taken."""

    id: int
    climb_id: int | None
    drill_id: int
    version: int
    made_at: str
    is_clean: bool


class TakeLineShape(Shape):
    """A take in a list: all but its pictures, which are asked for one take at a time."""

    id: str
    student_id: int
    climb_id: int | None
    rung: int | None
    drill_id: int
    version: int
    bpm: WireExact
    bpm_label: str
    source: Source
    played_at: str
    seconds: str
    mark: Mark
    machine: Mark | None
    ear_by: str | None
    ease: int | None
    part_name: str
    reasons: list[str]
    note: str
    is_measured: bool


class TakeShape(TakeLineShape):
    """A take with its word, what it leads to, its figures and pictures."""

    ear: Ear | None
    heading: str
    says: list[str]
    well: list[str]
    faults: list[FaultKind]
    offers: list[OfferShape]
    remedies: list[RemedyShape]
    held_to: str
    start: float
    figures: FiguresShape | None


class AgainShape(Shape):
    """What today's rule says of a kept take, beside what was said then."""

    then: TakeShape
    mark: Mark | None
    reasons: list[str]
    figures: FiguresShape | None
    is_other: bool


def take_line_shape(take: TakeLine) -> TakeLineShape:
    """Return the shape of a take in a list."""
    return TakeLineShape(
        **_values(take, take.seconds), ear_by=take.ear_by, ease=take.ease, is_measured=take.due is not None
    )


def take_shape(kept: Kept) -> TakeShape:
    """Return the shape of a kept take."""
    return _take_shape(kept.take, kept.limits, kept.reading, [(one, why) for why, one in _offered(kept)])


def again_shape(again: Again) -> AgainShape:
    """Return a kept take beside what today's rule says of it."""
    word: Verdict | None = again.verdict
    return AgainShape(
        then=_take_shape(again.take, again.limits, again.reading, []),
        mark=word.mark if word else None,
        reasons=list(word.reasons) if word else [],
        figures=_figures(again.figures, again.take, again.limits, again.reading),
        is_other=word is not None and again.take.machine is not None and word.mark != again.take.machine,
    )


def kept_remedy_shape(kept: KeptRemedy) -> KeptRemedyShape:
    """Return a remedy that was taken."""
    return KeptRemedyShape(
        **_remedy(kept.remedy, kept.fault).__dict__,
        id=kept.id,
        climb_id=kept.climb_id,
        drill_id=kept.drill_id,
        version=kept.version,
        made_at=kept.made_at.isoformat(),
        is_clean=kept.clean_at is not None,
    )


def measured_words(take: TakeLine) -> str:
    """Return what a take measured in a sentence or two; empty where nothing was."""
    found = []
    if take.bias is not None and take.bias_half is not None and take.bias_count is not None:
        bias = ms_shape(Interval(take.bias, take.bias_half, take.bias_count), signed=True)
        found.append(f"Bias {bias.label} {bias.plus_minus} ({plural(bias.count, 'note')})." if bias else "")
    if take.drift_bpm is not None:
        found.append(f"Drift {drift_words(take.drift_bpm)}.")
    return " ".join(found)


def _offered(kept: Kept) -> list[tuple[str, Remedy]]:
    return [(fault_name(fault), one) for fault, one in offered(kept.take, kept.climb)]


def _take_shape(take: Take, limits: Limits, reading: Reading, found: list[tuple[Remedy, str]]) -> TakeShape:
    figures = _figures(take.figures, take, limits, reading)
    word = word_of(take.mark, take.faults, take.reasons)
    return TakeShape(
        **_values(take, take.end - take.start),
        ear_by=take.ear.by if take.ear else None,
        ease=take.ear.ease if take.ear else None,
        is_measured=figures is not None,
        ear=take.ear,
        heading=word.heading,
        says=list(word.says),
        well=list(word.well),
        faults=list(dict.fromkeys(fault.kind for fault in take.faults)),
        offers=[_offer(offer, reading.drill) for offer in take.offers],
        remedies=[_remedy(remedy, against) for remedy, against in found],
        held_to=limits.words,
        start=take.start,
        figures=figures,
    )


def _values(take: Take | TakeLine, seconds: float) -> dict[str, Any]:
    """Return what a take shows wherever it is shown."""
    return {
        "id": take.id,
        "student_id": take.student_id,
        "climb_id": take.climb_id,
        "rung": take.rung,
        "drill_id": take.drill_id,
        "version": take.version,
        "bpm": take.bpm,
        "bpm_label": label(take.bpm),
        "source": take.source,
        "played_at": take.played_at.isoformat(),
        "seconds": f"{seconds:.1f}",
        "mark": take.mark,
        "machine": take.machine,
        "part_name": take.part_name,
        "reasons": list(take.reasons),
        "note": take.note,
    }


def _figures(figures: Figures | None, take: Take, limits: Limits, reading: Reading) -> FiguresShape | None:
    if figures is None:
        return None
    window = window_of(reading, take.part) if take.part else None
    due = due_notes(reading, take.bpm, take.start, take.end, window)
    marks = [
        TakeMarkShape(at=seam.at, kind="seam", label=seam.name, event=due.event_from(seam.at))
        for seam in due.seams
        # From beat to beat it would be a mark on every one.
        if seam.kind != "inside"
    ]
    return figures_shape(figures, limits, reading, marks)


def _offer(offer: Offer, drill: Drill) -> OfferShape:
    other = None
    if offer.division is not None and offer.instead is not None:
        other = with_division(drill, offer.instead, offer.division)
    return OfferShape(
        kind=offer.kind, label=offer.label, bpm=offer.bpm, division=offer.division, drill=other, passes=offer.passes
    )


def _remedy(remedy: Remedy, against: str) -> RemedyShape:
    return RemedyShape(
        key=remedy.key,
        name=remedy.name,
        why=remedy.why,
        against=against,
        bpm=remedy.bpm,
        bpm_label=label(remedy.bpm),
        part=remedy.part,
        drill=remedy.drill,
        spoken=remedy.spoken,
        say_bars=remedy.say_bars,
        pulse=remedy.pulse,
    )
