"""The sentences of a word: the fault with its two numbers, and what is well."""

from collections.abc import Sequence

from ripresa.core.exact import capital, plural
from ripresa.core.takes.evenness import is_straight
from ripresa.core.takes.fault import Checked, Fault, FaultKind
from ripresa.core.takes.figures import Figures
from ripresa.core.takes.interval import shown_ms
from ripresa.core.takes.slips import slip_bounds

#: How a sentence on a change begins where all else is even.
CONTRAST = "Even, but not at the change: "
#: Per cent that is told at all.
_SHOWN = 0.1


def fault_words(fault: Fault, figures: Figures, well: Sequence[str] = ()) -> str:
    """Return what lies off, with its number, its half-width and its limit; ``well`` begins a sentence of contrast."""
    even = bool(well) and any(line.startswith("Even") for line in well)
    match fault.kind:
        case "seam":
            times = f", {fault.times} times of {fault.of}" if fault.of > 1 else ", heard once"
            note = "the first note " if fault.symbol else ""
            said = f"{note}{_ms(fault)} {fault.side} after {fault.where}{times} (limit {_limit(fault)})."
            return f"{CONTRAST}{said}" if even else f"The change: {said}"
        case "place":
            reason = f", {fault.symbol}" if fault.symbol else ""
            times = f"{fault.times} times of {fault.of}"
            return f"{capital(fault.where)}: {_ms(fault)} {fault.side}, {times}{reason} (limit {_limit(fault)})."
        case "habit":
            return (
                f"“{fault.where}” of {fault.division} a beat{fault.in_hand} comes {_ms(fault)} {fault.side} each time "
                f"(limit {_limit(fault)})."
            )
        case "crowding":
            return (
                f"Crowded: the last note of {fault.division} a beat is held {fault.value:.0f} ± "
                f"{fault.half_width:.0f} % longer than the others (limit {fault.limit:.0f} %)."
            )
        case "swing":
            heard = "Straight" if is_straight(fault.value) else "Swung"
            asked = f"a swing of {fault.where}" if fault.where else "straight"
            return (
                f"{heard}{fault.in_hand}, {fault.value:.1f} ± {_half(fault)} to 1 at {fault.division} a beat, where "
                f"{asked} is asked (limit {fault.limit:.1f} to 1)."
            )
        case "tempo":
            way = "Runs ahead" if fault.value > 0 else "Falls behind"
            side = "faster" if fault.value > 0 else "slower"
            since = f" from {fault.where} of pass {fault.turn + 1} on" if fault.where else ""
            return (
                f"{way}{since}: {abs(fault.value):.1f} ± {_half(fault)} % {side} than asked (limit {fault.limit:g} %)."
            )
        case "click":
            return f"Beside the click: {_ms(fault)} {fault.side} from the start (limit {_limit(fault)})."
        case "furthest":
            side = "behind" if fault.value > 0 else "ahead of"
            known = "the click" if fault.where == "click" else "where it began"
            return f"{_ms(fault)} {side} {known} at {_place(fault)} (limit {_limit(fault)})."
        case "spread":
            return f"Uneven at {division_told(fault.where)}: spread {_ms(fault)} (limit {_limit(fault)})."
        case "lost_beat":
            if fault.where == "silent":
                return f"{_beats(fault.value)} left out at {_place(fault)}."
            way = "lost" if fault.where == "late" else "won"
            return f"{_beats(fault.value)} {way} at {_place(fault)}: what follows is {fault.where} by as much."
        case "group":
            return f"A group stood off by {_beats(fault.value)} at {_place(fault)}, and came back."
        case "back":
            return f"Went back to {_place(fault)}, and played {_beats(fault.value, 'a')} once more."
        case "hand":
            if fault.where == "spread":
                return f"{fault.symbol} is the uneven one: spread {_ms(fault)} (limit {_limit(fault)})."
            return f"{fault.symbol} comes {_ms(fault)} {fault.side} beside the others (limit {_limit(fault)})."
        case "accent":
            return (
                f"Flat: accents stand {fault.value:.1f} ± {fault.half_width:.1f} dB over plain notes "
                f"(asked {fault.limit:g} dB)."
            )
        case "misplaced":
            return f"{fault.times} of {fault.of} accents fell on the note beside theirs."
        case "smear" if fault.where:
            return (
                f"{capital(fault.where)}: sounds for {fault.value:.0f} % of its length, {fault.times} times of "
                f"{fault.of} (limit {fault.limit:.0f} %)."
            )
        case "smear":
            return (
                f"Smeared: notes sound for {fault.value:.0f} ± {fault.half_width:.0f} % of their length "
                f"(limit {fault.limit:.0f} %)."
            )
        case "landing":
            if fault.unit == "%":
                side = "faster" if fault.value > 0 else "slower"
                return (
                    f"Inside the fills {abs(fault.value):.1f} ± {fault.half_width:.1f} % {side} than the rest "
                    f"(limit {fault.limit:g} %)."
                )
            return f"{_LANDINGS[fault.where]}: {_ms(fault)} {fault.side}, {fault.of} times (limit {_limit(fault)})."
        case "slips":
            return _slips(fault, figures)
        case "together":
            first, second = ("left", "right") if fault.value >= 0 else ("right", "left")
            return (
                f"The hands are apart where they meet: the {first} comes {_ms(fault)} after the {second}, "
                f"{fault.of} times (limit {_limit(fault)})."
            )


_LANDINGS = {
    "hits": "The hits",
    "arrivals": "The arrival",
    "after a rest": "The first note after a rest",
    "after a fill": "The return after a fill",
    "after silence of the click": "The first note after silence of the click",
}


#: What each kind of fault is called: where it is ticked, and where a remedy is kept.
FAULT_NAMES: dict[FaultKind, tuple[str, str]] = {
    "seam": ("stumbles at a change", "The first beat after a change comes late or early."),
    "habit": ("one slot is always off", "The same place of the beat, each time."),
    "crowding": ("crowds the beat", "The front of the beat is rushed, and a hole stays behind it."),
    "swing": (
        "another swing than asked",
        "Pairs are swung where straight is asked, or the other way round.",
    ),
    "spread": ("uneven", "Now early, now late, without a pattern."),
    "place": ("one place is always off", "The same note of the drill, each time round."),
    "tempo": ("rushes or drags", "The tempo itself goes away."),
    "click": ("beside the click", "Steady, but early or late all the way."),
    "furthest": ("away from the click", "Somewhere on the way, however it began and ended."),
    "lost_beat": ("loses a beat", "All that follows is out by a beat."),
    "group": ("a group slips", "Some notes stand off by a slot, and come back."),
    "back": ("stops and goes back", "Something was played once more, and the click had gone on."),
    "hand": ("one hand is weak", "One hand is late, or less even than the other."),
    "accent": ("flat accents", "Accents do not stand out."),
    "misplaced": ("accents in the wrong place", "The note beside it is loud."),
    "smear": ("smeared", "Notes run into each other."),
    "landing": ("lands late", "Hits, arrivals, or what follows a silence."),
    "slips": ("too many slips", "Notes are missed, doubled or wrong."),
    "together": ("the hands are apart", "Where both are due at once, one comes first."),
}


def fault_name(fault: Fault) -> str:
    """Return what a fault is called, with where it lies: ``stumbles at a change, 5 → 6``."""
    where = fault.where if fault.kind in {"seam", "landing", "place"} else fault.symbol or fault.division
    if fault.kind in {"lost_beat", "group", "back", "furthest"}:
        # Where it was differs from take to take; that it comes again is what is pooled.
        where = ""
    name = FAULT_NAMES[fault.kind][0]
    return f"{name}, {where}" if where else name


def well_words(checked: Sequence[Checked]) -> list[str]:
    """Return what is well, in a sentence each, the evenness first."""
    inside = [one.fault for one in checked if one.state == "inside"]
    found = []
    spreads = [fault for fault in inside if fault.kind == "spread"]
    if spreads and len(spreads) == sum(one.fault.kind == "spread" for one in checked):
        widest = max(spreads, key=lambda fault: fault.value / fault.limit)
        at = f" at {division_told(widest.where)}" if len(spreads) > 1 else ""
        found.append(f"Even: spread {_ms(widest)}{at} (limit {_limit(widest)}).")
    for fault in inside:
        if fault.kind == "slips":
            # A count is what it is: beside it stands what the limit is of so many notes.
            slips = plural(fault.times, "slip") if fault.times else "No slip"
            found.append(f"{slips} in {fault.of} notes (limit {fault.limit * 100:g} %).")
        if fault.kind == "click":
            # What lies inside its own uncertainty is nothing that a number should claim.
            said = (
                f"With the click: {_ms(fault)} {fault.side}"
                if _is_sure(fault)
                else f"On the click, ± {shown_ms(fault.half_width)} ms"
            )
            found.append(f"{said} (limit {_limit(fault)}).")
        if fault.kind == "tempo" and not fault.where:
            side = "fast" if fault.value > 0 else "slow"
            sure = _is_sure(fault) and abs(fault.value) >= _SHOWN
            said = (
                f"Tempo {abs(fault.value):.1f} ± {_half(fault)} % {side}" if sure else f"On tempo, ± {_half(fault)} %"
            )
            found.append(f"{said} (limit {fault.limit:g} %).")
        if fault.kind == "together":
            found.append(f"Together: {_ms(fault)} apart where the hands meet (limit {_limit(fault)}).")
        if fault.kind == "accent":
            found.append(f"Accents {fault.value:.1f} ± {fault.half_width:.1f} dB over plain notes.")
    seams = [fault for fault in inside if fault.kind == "seam"]
    if seams and not any(one.fault.kind == "seam" and one.state == "outside" for one in checked):
        worst = max(seams, key=lambda fault: abs(fault.value) / fault.limit)
        found.append(f"Changes met: at most {_ms(worst)} {worst.side}, after {worst.where} (limit {_limit(worst)}).")
    return found


def _slips(fault: Fault, figures: Figures) -> str:
    far = fault.times - figures.missed - figures.extra - figures.wrong
    counts = (
        (figures.missed, "missed"),
        (figures.extra, "extra"),
        (figures.wrong, "of another pitch"),
        (far, "misplaced"),
    )
    parts = [f"{count} {name}" for count, name in counts if count]
    limit = f"(limit {fault.limit * 100:g} %, {slip_bounds(fault.of, fault.limit)} here)"
    return f"{', '.join(parts)} of {plural(fault.of, 'note')} {limit}."


def division_told(where: str) -> str:
    """Return a division, and the hand that plays it, as they are told: ``3 a beat, left hand``."""
    division, comma, hand = where.partition(", ")
    return f"{division} a beat{comma}{hand}"


def _place(fault: Fault) -> str:
    at = f"{fault.symbol} of " if fault.symbol else ""
    return f"{at}pass {fault.turn + 1}"


def _beats(beats: float, article: str = "A") -> str:
    nearest = round(beats)
    if nearest and abs(beats - nearest) < 0.12:
        return f"{article} beat" if nearest == 1 else f"{nearest} beats"
    return f"{beats:.2f} beats"


def _ms(fault: Fault) -> str:
    return f"{abs(fault.value) * 1000:.0f} ± {shown_ms(fault.half_width)} ms"


def _is_sure(fault: Fault) -> bool:
    return abs(fault.value) > fault.half_width


def _half(fault: Fault) -> str:
    """Return a half-width of per cent: never less than what is shown at all."""
    return f"{max(_SHOWN, fault.half_width):.1f}"


def _limit(fault: Fault) -> str:
    return f"{fault.limit * 1000:.0f}"
