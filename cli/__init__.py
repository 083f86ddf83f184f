"""The headless commands: no database, no browser."""
