"""A chain of lines in; relations, ledger, answer, finish and evidence out."""
