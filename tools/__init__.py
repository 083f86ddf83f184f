"""The one door's Python half: databases, servers, tests and benches around the product."""
