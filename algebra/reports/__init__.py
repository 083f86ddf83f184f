"""What goes in and comes out of the core: frozen records, each shape described once.

The JSON of the command line, the published JSON Schema, the schemas of the HTTP API and the types of the front end are
all made from these records. Fields are added, never renamed.
"""
