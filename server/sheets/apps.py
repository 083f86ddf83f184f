from django.apps import AppConfig


class SheetsConfig(AppConfig):
    name = "server.sheets"
    label = "sheets"

    def ready(self) -> None:
        """Reports are renewed among the jobs."""
        from server.jobs.pieces import Kind, register  # noqa: PLC0415  (models are known only now)
        from server.sheets import renewal  # noqa: PLC0415

        register(Kind(renewal.KIND, renewal.work_piece))
