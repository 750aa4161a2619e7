"""Recipes of all sounds: one table, from which a file is rendered here and the browser makes its own sounds."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.pitch import Voice as Voice
from ripresa.core.playing import Drum
from ripresa.core.rhythm import Level

Role = Literal["strong", "plain", "division", "count", "pulse"]
Timbre = Literal["beep", "wood", "tick"]

TIMBRES: dict[Timbre, tuple[str, str]] = {
    "beep": ("a beep", "Clear pitch: the bar is a fifth above the beat."),
    "wood": ("a wood block", "Short and dry, and it carries over a guitar."),
    "tick": ("a tick", "Hardly any pitch: least in the way of wind and keys."),
}


@dataclass(frozen=True, slots=True)
class Wave:
    """A sine that fades.

    Args:
        ratio: Its pitch, as a multiple of the pitch asked for.
        weight: How strong it is at first. fading: 1/s by which it fades, as in exp(−fading · t).
    """

    ratio: float
    weight: float
    fading: float


@dataclass(frozen=True, slots=True)
class Clicks:
    """Clicks of all roles and timbres.

    Args:
        seconds: Length of the sound.
        rise: 1/s by which it rises from silence at first: 2000 is half a millisecond.
        hertz: Pitch of each role. waves: What each timbre is made of.
    """

    seconds: float
    rise: float
    hertz: dict[Role, float]
    waves: dict[Timbre, tuple[Wave, ...]]


@dataclass(frozen=True, slots=True)
class Partials:
    """A voice of partials that fade, the higher the sooner.

    Args:
        weights: Of each partial, from the lowest.
        fading: 1/s of the lowest; attack: seconds in which the note rises.
    """

    weights: tuple[float, ...]
    fading: float
    attack: float


@dataclass(frozen=True, slots=True)
class Pluck:
    """A plucked string: a burst of noise in a loop that loses its edge (Karplus and Strong 1983).

    Args:
        keeps: Share of two neighbouring samples that goes on; gain: how strong it is.
    """

    keeps: float
    gain: float


@dataclass(frozen=True, slots=True)
class DrumRecipe:
    """A drum: a tone that may fall in pitch, and noise, each fading.

    Args:
        hertz, falls, falling: Pitch at the end, what it has above it at first, and 1/s by which that goes.
        tone, tone_fading, noise, noise_fading: Strength at first and 1/s.
    """

    hertz: float = 0.0
    falls: float = 0.0
    falling: float = 0.0
    tone: float = 0.0
    tone_fading: float = 0.0
    noise: float = 0.0
    noise_fading: float = 0.0


@dataclass(frozen=True, slots=True)
class Levels:
    """How loud each channel is at its most; all together stay below full.

    Args:
        click, notes, backing, voice: Gain of a channel.
        accent, plain, ghost: Of a note: an accent is 6 dB over a plain one, a ghost 7 dB under it.
        plain_click, division_click: Of a click on a beat, and inside one.
        chord: Power of the number of tones that a chord's tones are made softer by.
    """

    click: float = 0.4
    notes: float = 0.28
    backing: float = 0.16
    voice: float = 0.5
    accent: float = 1.0
    plain: float = 0.5
    ghost: float = 0.22
    plain_click: float = 0.75
    division_click: float = 0.4
    chord: float = 0.7

    def of(self, level: Level) -> float:
        """Return the gain of a note of a level."""
        return {"accent": self.accent, "plain": self.plain, "ghost": self.ghost}[level]


@dataclass(frozen=True, slots=True)
class Recipes:
    """All of it; a note lasts ``note_seconds`` at most, a drum ``drum_seconds``, a clap fades with ``clap_fading``."""

    note_seconds: float
    clap_seconds: float
    clap_fading: float
    drum_seconds: float
    pluck: Pluck
    partials: dict[Literal["keys", "wind"], Partials]
    clicks: Clicks
    drums: dict[Drum, DrumRecipe]
    levels: Levels


RECIPES = Recipes(
    note_seconds=1.6,
    clap_seconds=0.12,
    clap_fading=45,
    drum_seconds=0.25,
    pluck=Pluck(keeps=0.497, gain=0.8),
    partials={
        "keys": Partials((1, 0.5, 0.28, 0.14, 0.07), 2.6, 0.003),
        "wind": Partials((1, 0.12, 0.42, 0.06, 0.18), 0.25, 0.014),
    },
    clicks=Clicks(
        seconds=0.08,
        rise=2000,
        hertz={"strong": 1760, "plain": 1175, "division": 1320, "count": 880, "pulse": 587},
        waves={
            "beep": (Wave(1, 1, 70),),
            "wood": (Wave(0.6, 0.8, 110), Wave(1.51, 0.6, 260)),
            "tick": (Wave(2.3, 1.2, 420),),
        },
    ),
    drums={
        "kick": DrumRecipe(hertz=55, falls=60, falling=40, tone=1, tone_fading=14),
        "snare": DrumRecipe(hertz=190, tone=0.3, tone_fading=30, noise=0.5, noise_fading=28),
        "hat": DrumRecipe(noise=0.35, noise_fading=90),
        "hit": DrumRecipe(hertz=120, falls=90, falling=30, tone=1, tone_fading=11, noise=0.7, noise_fading=18),
        "light_hit": DrumRecipe(hertz=160, falls=60, falling=40, tone=0.5, tone_fading=20, noise=0.25, noise_fading=34),
        "tap": DrumRecipe(hertz=70, falls=30, falling=60, tone=0.7, tone_fading=32, noise=0.1, noise_fading=120),
        "brush": DrumRecipe(noise=0.16, noise_fading=24),
        "pad_low": DrumRecipe(hertz=210, falls=60, falling=80, tone=0.8, tone_fading=55, noise=0.4, noise_fading=130),
        "pad_high": DrumRecipe(hertz=290, falls=60, falling=80, tone=0.8, tone_fading=60, noise=0.4, noise_fading=130),
        "drum_low": DrumRecipe(hertz=75, falls=25, falling=30, tone=1.2, tone_fading=14, noise=0.08, noise_fading=80),
        "drum_open": DrumRecipe(hertz=190, falls=20, falling=30, tone=1, tone_fading=18, noise=0.15, noise_fading=60),
        "drum_slap": DrumRecipe(hertz=420, tone=0.4, tone_fading=60, noise=0.8, noise_fading=70),
        "clap": DrumRecipe(hertz=1100, tone=0.15, tone_fading=60, noise=0.9, noise_fading=45),
    },
    levels=Levels(),
)
