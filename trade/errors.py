"""The one root of refusals. Anything else that escapes is a bug."""


class TradeError(Exception):
    """Something was asked that cannot be done.

    The message is a sentence for the person who asked.
    """

    @property
    def said(self) -> str:
        """The sentence with how it was put together, of which `str` keeps only the English."""
        return self.args[0] if self.args else ""


class MeasureError(TradeError):
    """A length or a weight could not be read. `read` is what was typed."""

    def __init__(self, message: str, read: str) -> None:
        """Keep the sentence and what was typed."""
        super().__init__(message)
        self.read = read


class PlanError(TradeError, ValueError):
    """A plan, or a part of one, contradicts itself or the world.

    `where` is the path of the part, like `shelves[2]`.
    """

    def __init__(self, message: str, where: str = "") -> None:
        """Keep the sentence and the place it belongs to."""
        super().__init__(message)
        self.where = where


class NoSizeError(TradeError):
    """A table has no row of the size that is needed."""


class UnknownRowError(TradeError):
    """A table has no row of that name."""
