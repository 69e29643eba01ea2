"""The Django project: settings, addresses, entry point. Nothing else."""
