"""Small services that stand in for real ones on loopback: a page reader and a school's records. The product speaks to
them over HTTP alone."""
