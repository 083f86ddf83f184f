"""Reading: characters to tokens, tokens to the form-keeping tree, lines to statements."""
