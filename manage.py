#!/usr/bin/env python
"""Django's command line."""

import os
import sys

from gancho import folder

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gancho.settings")
    from django.core.management import execute_from_command_line

    folder.prepare()
    execute_from_command_line(sys.argv)
