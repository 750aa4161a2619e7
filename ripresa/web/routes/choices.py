"""What there is to choose from, each with a name and why one would."""

from collections.abc import Mapping
from itertools import chain
from typing import Any

from flask import Response, current_app

import ripresa
from ripresa.core.changes import TURNED
from ripresa.core.climbs import CLICK_LADDERS, MOVINGS, ORDERS, PRESETS, RULES, TARGETS, ClimbPlan
from ripresa.core.drill import (
    ARTICULATIONS,
    CLOSINGS,
    COMES_WITH,
    DIVISIONS,
    ENTERING,
    FEET,
    FINGERINGS,
    FOR_TWO_HANDS,
    FROMS,
    MOVEMENTS,
    REDUCTIONS,
    SCHOOLS,
    SEAMS,
    STEPS,
    USUAL_RATES,
    VOICES,
    VOICINGS,
    WHERES,
)
from ripresa.core.drill.accents import ACCENTS
from ripresa.core.drill.click import CLICKS
from ripresa.core.drill.hands import (
    ARTICULATION_PATTERNS,
    CIRCUITS,
    CYCLES,
    HAND_LEADS,
    HANDS,
    LEADS,
    ODD_SCHOOLS,
    RESTARTS,
)
from ripresa.core.drill.material import (
    AFTERS,
    AGAINS,
    ALL,
    BASSES,
    FIGURES,
    FITS,
    LEGATOS,
    MATERIALS,
    MIXES,
    MOST_OCTAVES,
    NAMED_OCTAVES,
    OWN,
    PATHS,
    PATTERNS,
    PICKS,
    RHYTHMS,
    SAYS,
    SHAPES,
    TOPS,
    WAYS,
    octaves_words,
)
from ripresa.core.drill.material import ORDERS as FINGER_ORDERS
from ripresa.core.drill.second import BALANCES, HOLDS, INTERVALS, PLAYS, STARTS
from ripresa.core.drill.second import FIGURES as BROKEN
from ripresa.core.exact import Fraction, label
from ripresa.core.kind import Kind
from ripresa.core.listening import PROFILES
from ripresa.core.pitch import (
    ALL_STRINGS,
    CHORDS,
    INSTRUMENTS,
    LEVELS,
    SCALES,
    SPREAD,
    SPREAD_NAME,
    STRING_SETS,
    TONICS,
    own_instrument,
    show_tonic,
)
from ripresa.core.plans import WEEKDAYS
from ripresa.core.playing import ACCOMPANIMENTS, MEANWHILE, SLOWS, WHATS, WORDS
from ripresa.core.playing import SCHOOLS as PULSES
from ripresa.core.rhythm import METERS, RATIOS, RUNS, SETTINGS, SYSTEMS
from ripresa.core.studio import PAPERS, SOUND_FIRST, StudentDetails
from ripresa.core.takes import CALIBRATION, EVENNESS, FAULT_NAMES, LIMITS, STAND_INS, Evenness, Figure
from ripresa.formats.exports import EXPORTS
from ripresa.formats.notation import FORMS
from ripresa.formats.play_along_file import FORMATS
from ripresa.formats.recipes import RECIPES, TIMBRES
from ripresa.formats.sheet import SHOWS
from ripresa.formats.speaker import languages
from ripresa.store.settings import studio_settings
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.shapes.choices import (
    AccentsKind,
    ArticulationChoice,
    Choice,
    Choices,
    ClickKind,
    FigureChoice,
    HandsKind,
    InstrumentChoice,
    LadderChoice,
    MaterialKind,
    MovementChoice,
    PlaysKind,
    PresetChoice,
    RuleKind,
    ScaleChoice,
    SchoolChoice,
    SoundChoice,
    StandInChoice,
    TargetKind,
)
from ripresa.web.shapes.voice import voice_choice

api = blueprint("choices")


@api.get("/choices", responses={200: Choices})
def list_choices() -> Response:
    """Everything that a brief offers."""
    chosen = studio_settings()
    own = [(line, own_instrument(line)) for line in chosen.own_instruments]
    return answer(
        Choices(
            materials=[
                MaterialKind(**_kind(one), fresh=one.fresh, hands=COMES_WITH.get(one.value)) for one in MATERIALS
            ],
            hands=[HandsKind(**_kind(one), fresh=one.fresh) for one in HANDS],
            accents=[AccentsKind(**_kind(one), fresh=one.fresh) for one in ACCENTS],
            targets=[TargetKind(**_kind(one), fresh=one.fresh) for one in TARGETS],
            rules=[RuleKind(**_kind(one), fresh=one.fresh) for one in RULES],
            movings=_named(MOVINGS),
            presets=[
                PresetChoice(
                    value=key,
                    label=one.name,
                    why=one.why,
                    rule=one.rule,
                    moving=one.moving,
                    clean_to_rise=one.clean_to_rise,
                    shaky_to_fall=one.shaky_to_fall,
                    evenness=one.evenness,
                )
                for key, one in PRESETS.items()
            ],
            plan=ClimbPlan(
                start=Fraction(72), settings=chosen.metronome, evenness=chosen.evenness, moving=chosen.moving
            ),
            student=StudentDetails(name="New student"),
            settings_of_studio=chosen,
            papers=_named(PAPERS),
            languages=[Choice(value=code, label=name, why="") for code, name in languages().items()],
            sound_firsts=_named(SOUND_FIRST),
            is_demo=current_app.config["DEMO"],
            version=ripresa.__version__,
            tonics=[Choice(value=tonic, label=show_tonic(tonic), why="") for tonic in TONICS],
            scales=[
                *(
                    ScaleChoice(value=key, label=scale.name, why="", degrees=scale.degrees)
                    for key, scale in SCALES.items()
                ),
                ScaleChoice(value=OWN, label="own steps", why="Write the degrees: 1 b2 3 4 5 b6 7.", degrees=0),
            ],
            chords=[
                ScaleChoice(value=key, label=chord.name, why="", degrees=chord.degrees) for key, chord in CHORDS.items()
            ],
            tone_sets=[
                *(
                    ScaleChoice(value=key, label=scale.name, why="", degrees=scale.degrees)
                    for key, scale in SCALES.items()
                ),
                *(
                    ScaleChoice(value=key, label=f"{chord.name} chord", why="", degrees=chord.degrees)
                    for key, chord in CHORDS.items()
                ),
            ],
            figures=[
                Choice(value=" ".join(str(degree) for degree in figure), label=name, why="")
                for figure, name in FIGURES.values()
            ],
            ways=_named(WAYS),
            patterns=[Choice(value=text, label=name, why=why) for text, name, why in PATTERNS.values()],
            swings=[Choice(value=str(ratio), label=name, why=why) for ratio, name, why in RATIOS],
            mixes=_named(MIXES),
            says=_named(SAYS),
            rhythms=_named(RHYTHMS),
            afters=_named(AFTERS),
            fits=_named(FITS),
            shapes=_named(SHAPES),
            octaves=_octaves(),
            tops=_named(TOPS),
            closings=_named(CLOSINGS),
            meters=[
                Choice(value=name, label=name, why=f"{meter.sign} is the beat that bpm counts.")
                for name, meter in METERS.items()
            ],
            divisions=[Choice(value=str(one), label=label(one), why="") for one in DIVISIONS],
            seams=_named(SEAMS),
            staves=_named(FORMS),
            sheet_shows=_named(SHOWS),
            exports=[Choice(value=ending, label=one.name, why="") for ending, one in EXPORTS.items()],
            sounds=[
                SoundChoice(value=kind, label=f"sound to play along, {one.name}", why="")
                for kind, one in FORMATS.items()
            ],
            fingerings=_named(FINGERINGS),
            articulations=[Choice(value=str(share), label=name, why=why) for share, name, why in ARTICULATIONS],
            countings=_named(SYSTEMS),
            backings=_named(ACCOMPANIMENTS),
            pulses=_named(PULSES),
            timbres=_named(TIMBRES),
            movements=[
                MovementChoice(value=key, label=name, why=why, every=USUAL_RATES[key])
                for key, (name, why) in MOVEMENTS.items()
            ],
            voices=_named(VOICES),
            feet=_named(FEET),
            entering=_named(ENTERING),
            fills_from=_named(FROMS),
            voicings=_named(VOICINGS),
            cue_wheres=_named(WHERES),
            count_runs=_named(RUNS),
            string_sets=[
                Choice(
                    value=ALL_STRINGS, label="as they are usually gripped", why="All strings; on keys close together."
                ),
                Choice(value=SPREAD, label=SPREAD_NAME, why="On keys: the second tone an octave higher."),
                *(Choice(value=key, label=name, why=why) for key, (_, _, name, why) in STRING_SETS.items()),
            ],
            parts=_named(REDUCTIONS),
            steps=_named(STEPS),
            schools=[
                SchoolChoice(value=key, label=name, why=why, steps=list(steps))
                for key, (name, why, steps) in SCHOOLS.items()
            ],
            cycles=[
                Choice(value=" ".join(cycle), label=f"{name} ({' '.join(cycle)})", why="")
                for cycle, name in CYCLES.values()
            ],
            restarts=_named(RESTARTS),
            leads=_named(LEADS),
            hand_leads=_named(HAND_LEADS),
            odd_schools=_named(ODD_SCHOOLS),
            plays=[PlaysKind(**_kind(one), fresh=one.fresh) for one in PLAYS],
            intervals=[Choice(value=key, label=name, why=why) for key, (_, _, name, why) in INTERVALS.items()],
            contrary_starts=[Choice(value=key, label=name, why=why) for key, (_, _, name, why) in STARTS.items()],
            holds=_named(HOLDS),
            broken=[Choice(value=key, label=name, why=why) for key, (_, name, why) in BROKEN.items()],
            balances=[Choice(value=key, label=name, why=why) for key, (_, _, name, why) in BALANCES.items()],
            picks=_named(PICKS),
            basses=_named(BASSES),
            agains=_named(AGAINS),
            finger_orders=[
                *(Choice(value=order, label=order, why="") for order in FINGER_ORDERS),
                Choice(value=ALL, label="all 24 orders", why="One after the other: nothing is left out."),
            ],
            string_paths=_named(PATHS),
            legatos=_named(LEGATOS),
            tonguings=[
                *(
                    ArticulationChoice(value=key, label=name, why=why, cycle=" ".join(cycle))
                    for key, (cycle, name, why) in ARTICULATION_PATTERNS.items()
                ),
                *(
                    ArticulationChoice(value=key, label=name, why=why, cycle="")
                    for key, (_, name, why) in CIRCUITS.items()
                ),
            ],
            levels=_named(LEVELS),
            two_hand_steps=list(FOR_TWO_HANDS),
            clicks=[ClickKind(**_kind(one), fresh=one.fresh) for one in CLICKS],
            click_ladders=[
                LadderChoice(value=key, label=one.name, why=one.why, plans=list(one.plans))
                for key, one in CLICK_LADDERS.items()
            ],
            click_orders=_named(ORDERS),
            instruments=[
                InstrumentChoice(
                    value=key,
                    label=one.name,
                    why="",
                    cycles=[" ".join(CYCLES[stroke][0]) for stroke in one.strokes],
                    breathes=one.breathes,
                    strings=len(one.strings),
                    has_keys=one.voice == "keys",
                    has_first_year=one.first_year is not None,
                    has_break=bool(one.breaks),
                    breath=one.breath,
                )
                for key, one in chain(INSTRUMENTS.items(), own)
            ],
            settings=_named(SETTINGS),
            evenness=[Choice(value=key, label=key, why=_evenness(key)) for key in EVENNESS],
            limits=[_limit(figure) for figure in LIMITS],
            faults=_named(FAULT_NAMES),
            turned=_named(TURNED),
            weekdays=[Choice(value=str(number), label=name, why="") for number, name in enumerate(WEEKDAYS)],
            stand_ins=[
                StandInChoice(value=key, label=name, player=player) for key, (name, player) in STAND_INS.items()
            ],
            sounds_as=[Choice(value=key, label=one.name, why="") for key, one in PROFILES.items()],
            calibration=CALIBRATION,
            spoken=_named(WHATS),
            spoken_words=_named(WORDS),
            meanwhile=_named(MEANWHILE),
            slows=[Choice(value=str(share), label=name, why="") for share, name in SLOWS],
            recipes=RECIPES,
            voice=voice_choice(),
        )
    )


def _kind(kind: Kind[object]) -> dict[str, Any]:
    return {
        "value": kind.value,
        "label": kind.name,
        "why": kind.why,
        "fields": list(kind.fields),
        "hints": kind.hints,
    }


def _named(pairs: Mapping[Any, tuple[str, str]]) -> list[Choice]:
    return [Choice(value=key, label=name, why=why) for key, (name, why) in pairs.items()]


def _octaves() -> list[Choice]:
    counted = [Choice(value=str(count), label=octaves_words(count), why="") for count in range(1, MOST_OCTAVES + 1)]
    return _named(NAMED_OCTAVES) + counted


def _evenness(key: Evenness) -> str:
    spread, slips = LIMITS["spread"][2][key], LIMITS["slips"][2][key]
    return (
        f"{EVENNESS[key]} Spread up to {spread.amount * 100:g} % of the gap, never under {spread.floor * 1000:g} ms; "
        f"up to {slips.amount * 100:g} % of the notes missed or extra."
    )


def _limit(figure: Figure) -> FigureChoice:
    name, unit, schools = LIMITS[figure]
    told = {
        school: f"{limit.amount:g} dB"
        if unit == "dB"
        else f"{limit.amount * 100:g} % {unit}" + (f", never under {limit.floor * 1000:g} ms" if limit.floor else "")
        for school, limit in schools.items()
    }
    return FigureChoice(
        value=figure, label=name, why="", schools={str(school): words for school, words in told.items()}
    )
