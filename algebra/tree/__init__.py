"""The form-keeping tree: what was written, exactly as it was written, and its typesetting."""
