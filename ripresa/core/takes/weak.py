"""Weak places: faults of many takes, pooled by what and where, with how often."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from ripresa.core.exact import plural
from ripresa.core.takes.fault import Fault, FaultKind
from ripresa.core.takes.telling import fault_name


@dataclass(frozen=True, slots=True)
class Weak:
    """A fault that comes again.

    Args:
        kind: What it is. name: With where it lies, in words.
        takes: In how many takes it was, of so many that were judged.
        value: The middle of its values; unit: as of a fault.
    """

    kind: FaultKind
    name: str
    takes: int
    of: int
    value: float
    unit: str

    @property
    def words(self) -> str:
        """All of it in a few words: ``stumbles at a change, 5 → 6: 37 ms late, in 4 takes of 7``."""
        how = _amount(self.value, self.unit)
        return f"{self.name}: {how + ', ' if how else ''}in {plural(self.takes, 'take')} of {self.of}"


def pooled_faults(takes: Sequence[Sequence[Fault]]) -> list[Weak]:
    """Return what is weak over some judged takes, the most frequent first; in each take a fault counts once."""
    met: dict[tuple[FaultKind, str], list[Fault]] = {}
    for faults in takes:
        for (kind, name), fault in {(one.kind, fault_name(one)): one for one in faults}.items():
            met.setdefault((kind, name), []).append(fault)
    found = [
        Weak(kind, name, len(every), len(takes), median(one.value for one in every), every[0].unit)
        for (kind, name), every in met.items()
    ]
    return sorted(found, key=lambda one: (-one.takes, one.name))


def _amount(value: float, unit: str) -> str:
    match unit:
        case "s":
            return f"{abs(value) * 1000:.0f} ms {'late' if value >= 0 else 'early'}"
        case "%":
            return f"{abs(value):.1f} %"
        case ":1":
            return f"{value:.1f} to 1"
        case "dB":
            return f"{value:.1f} dB"
        case _:
            return ""
