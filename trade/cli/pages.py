"""`schema`, `rules`, `glossary`: what `docs/` holds of the tables and the classes."""

import argparse

from trade import data
from trade.cli.common import as_json_text
from trade.plan import plan_file


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """They are asked with nothing."""


def schema(_: argparse.Namespace) -> int:
    """Print the JSON Schema of the plan format."""
    print(as_json_text(plan_file.schema()))
    return 0


def rules(_: argparse.Namespace) -> int:
    """Print the handbook's chapter on the rules."""
    print(rules_chapter())
    return 0


def rules_chapter() -> str:
    """Return the handbook's chapter on the rules, from the tables.

    Every check, then every number of ours.
    """
    lines = [
        "# The rules",
        "",
        "Printed by `python -m trade rules` from the tables; do not edit by hand.",
        "",
        "## Checks",
        "",
    ]
    for code, rule in data.rules().items():
        limit = f"{rule.limit}: “{rule.but}”" if rule.but else rule.limit
        lines += [
            f"### {rule.name}",
            "",
            f"`{code}`, {limit}. {rule.rule}",
            "",
            f"Source: {rule.source}.",
            "",
        ]
    lines += [
        "## Whose push",
        "",
        "| class | share of the use's push | at least | why | source |",
        "| --- | --- | --- | --- | --- |",
    ]
    lines += [
        f"| {row.name} | {row.share:g} | {f'{row.least_n:g} N' if row.least_n else ''} | "
        f"{row.reason} | {row.source} |"
        for row in data.pushes().values()
    ]
    lines += ["", "| use | factor on contents | push | source |", "| --- | --- | --- | --- |"]
    lines += [
        f"| {row.name} | {row.factor:g} | {row.push_n:g} N | {row.source} |"
        for row in data.uses().values()
    ]
    lines += [""]
    lines += ["## Numbers of the house"]
    for about, heading in data.HOUSE.items():
        lines += ["", f"### {heading}", "", "| number | value | meaning | source |"]
        lines += ["| --- | --- | --- | --- |"]
        lines += [
            f"| `{key}` | {row.value:g} {row.unit} | {row.meaning} | {row.source} |"
            for key, row in data.house_rules(about).items()
        ]
    return "\n".join(lines)


def glossary(_: argparse.Namespace) -> int:
    """Print the handbook's glossary."""
    print(glossary_chapter())
    return 0


def glossary_chapter() -> str:
    """Return the words of the trade, from the table."""
    lines = [
        "# Glossary",
        "",
        "Printed by `python -m trade glossary` from the table; do not edit by hand.",
        "",
    ]
    for row in data.glossary().values():
        also = f" Also: {', '.join(row.also)}." if row.also else ""
        lines.append(f"- **{row.name[0].upper()}{row.name[1:]}**: {row.meaning}{also}")
    return "\n".join(lines)
