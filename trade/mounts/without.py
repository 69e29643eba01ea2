"""How people do without a tool, what that costs, and what it rules out."""

from trade.data import Tool
from trade.language import compose, counted, in_system, sized
from trade.measure import Units


def without(tool: Tool, units: Units) -> str:
    """Return it in words, sizes in the person's units first."""
    if not tool.without:
        nobody = "Nobody does without: borrow or hire one for a day. {rules_out}"
        return in_system(compose(nobody, rules_out=sized(tool.rules_out)), units)
    said = compose(
        "Without one: {how!l} It comes out within {within}, and takes {minutes} more. Not so: "
        "{rules_out!l}",
        how=sized(tool.without),
        within=sized(tool.within),
        minutes=counted(tool.minutes, "{n} minute", "{n} minutes"),
        rules_out=sized(tool.rules_out),
    )
    return in_system(said, units)
