"""Style sheets and scripts: formatted alike, colours named once, nothing that is not defined."""

import re
from pathlib import Path

import cssbeautifier
from django.conf import settings
from django.test import SimpleTestCase

FILES = sorted((Path(settings.BASE_DIR) / "bench/static/bench/css").glob("*.css"))


class Sheets(SimpleTestCase):
    def test_they_are_formatted(self) -> None:
        """Mend with `python -m tests.bench.test_css`."""
        for path in FILES:
            with self.subTest(path.name):
                self.assertEqual(path.read_text(), formatted(path))

    def test_no_line_of_a_script_is_longer_than_a_hundred(self) -> None:
        for path in FILES[0].parents[1].glob("*.js"):
            for line in path.read_text().splitlines():
                self.assertLessEqual(len(line), 100, f"{path.name}: {line}")

    def test_every_colour_has_a_name(self) -> None:
        for path in FILES:
            for line in path.read_text().splitlines():
                if re.search(r"#[0-9a-fA-F]{3,8}\b|\brgba?\(", line):
                    self.assertRegex(line, r"^\s*--[a-z-]+:", f"{path.name}: {line}")

    def test_every_custom_property_is_defined(self) -> None:
        text = "".join(path.read_text() for path in FILES)
        used = {name for name in re.findall(r"var\((--[a-z-]+)", text) if "--bs-" not in name}
        self.assertLessEqual(used, set(re.findall(r"(--[a-z-]+):", text)))

    def test_the_page_loads_each(self) -> None:
        page = (Path(settings.BASE_DIR) / "bench/templates/bench/base.html").read_text()
        self.assertEqual(sorted(re.findall(r"bench/css/(\w+\.css)", page)), [p.name for p in FILES])


def formatted(path: Path) -> str:
    """Return a sheet as it should be formatted."""
    options = cssbeautifier.default_options()
    options.indent_size = 2
    options.end_with_newline = True
    options.newline_between_rules = False
    options.wrap_line_length = 100
    found: str = cssbeautifier.beautify(path.read_text(), options)
    return found


if __name__ == "__main__":
    for each in FILES:
        each.write_text(formatted(each))
