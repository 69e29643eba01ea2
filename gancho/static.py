"""Static files by names that say what is in them, so that browsers keep them for good; packed once, at the start."""

from whitenoise.storage import CompressedManifestStaticFilesStorage


class Hashed(CompressedManifestStaticFilesStorage):  # type: ignore[misc]
    """Imports between modules follow the names, too."""

    support_js_module_import_aggregation = True
