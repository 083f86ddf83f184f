"""The demo data for tests: made once in each database, then put back from a copy beside it, which takes a tenth of a
second."""

from django.core.management import call_command
from django.db import connection

_COPY = "demo_copy"


def put_demo():
    """Fills the database with the demo data, whatever stands in it."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY tablename")
        tables = [f'"{name}"' for (name,) in cursor.fetchall() if name != "django_migrations"]
        cursor.execute("SELECT to_regnamespace(%s) IS NOT NULL", [_COPY])
        if cursor.fetchone() == (True,):
            cursor.execute(f"TRUNCATE {', '.join(tables)} CASCADE")
            cursor.execute("SET session_replication_role = replica")  # rows come table by table, and triggers have run
            for table in tables:
                cursor.execute(f"INSERT INTO {table} OVERRIDING SYSTEM VALUE SELECT * FROM {_COPY}.{table}")
            cursor.execute("SET session_replication_role = DEFAULT")
            cursor.execute(f"SELECT setval(name::regclass, at) FROM {_COPY}.sequences")
            return
        call_command("demo", verbosity=0)
        cursor.execute(f"CREATE SCHEMA {_COPY}")
        for table in tables:
            cursor.execute(f"CREATE TABLE {_COPY}.{table} AS TABLE public.{table}")
        cursor.execute(
            f"CREATE TABLE {_COPY}.sequences AS SELECT quote_ident(schemaname) || '.' || quote_ident(sequencename)"
            " AS name, last_value AS at FROM pg_sequences WHERE schemaname = 'public' AND last_value IS NOT NULL"
        )
