"""Notes a week: a small rise is healthy; more is flagged and not forbidden."""

from dataclasses import dataclass

from ripresa.core.exact import Fraction, decimal


@dataclass(frozen=True, slots=True)
class Load:
    """The notes of a week beside those of the week before.

    Args:
        now, before: Notes. limit: Per cent by which they may grow.
    """

    now: int
    before: int
    limit: int = 10

    @property
    def more(self) -> Fraction | None:
        """By how many per cent there are more; None where there were none before."""
        return (Fraction(self.now, self.before) - 1) * 100 if self.before else None

    @property
    def is_over(self) -> bool:
        """Whether they grew by more than the limit."""
        return self.more is not None and self.more > self.limit

    @property
    def sentence(self) -> str:
        """The two weeks in a sentence; empty where nothing was played."""
        if not self.now and not self.before:
            return ""
        if self.more is None:
            return f"{self.now:,} notes in these seven days, none in the seven before."
        change = f"{decimal(abs(self.more), 0)} % {'more' if self.more >= 0 else 'fewer'} than in the seven before"
        over = f". That is above {self.limit} %: let it grow more slowly" if self.is_over else ""
        return f"{self.now:,} notes in these seven days, {change}{over}."
