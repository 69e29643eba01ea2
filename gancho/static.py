"""Static files under hashed names, which browsers may keep for ever.

Compressed once, when the server starts.
"""

from whitenoise.storage import CompressedManifestStaticFilesStorage


class Hashed(CompressedManifestStaticFilesStorage):  # type: ignore[misc]
    """Imports between modules follow the names, too.

    Where nobody has collected them, a file keeps its plain name.
    """

    support_js_module_import_aggregation = True

    def stored_name(self, name: str) -> str:
        """The name with what is in it."""
        try:
            return str(super().stored_name(name))
        except ValueError:
            return name
