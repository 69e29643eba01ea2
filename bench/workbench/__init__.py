"""The workbench: one wall in one request, its stages, and what all of them share."""
