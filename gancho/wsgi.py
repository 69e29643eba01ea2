"""The application as any WSGI server calls it."""

import os
from importlib import import_module

from django.core.wsgi import get_wsgi_application

from gancho import folder
from trade.memo import collect_seldom

folder.prepare()
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gancho.settings")
application = get_wsgi_application()
import_module("bench.serving").begin()
collect_seldom()
