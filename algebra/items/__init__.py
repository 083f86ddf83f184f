"""Forms of an item, one a module: how it is made, its key, how an answer is judged and what it earns."""
