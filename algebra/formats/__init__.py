"""The forms in which workings come in and lines go out."""
