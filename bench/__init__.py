"""The workbench: the web's face of the trade."""
