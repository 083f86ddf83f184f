from django.apps import AppConfig


class SheetsConfig(AppConfig):
    name = "server.sheets"
    label = "sheets"

    def ready(self) -> None:
        """Reports are renewed among the jobs."""
        from server.jobs.pieces import Kind, register
        from server.sheets import planned, renewal

        register(Kind(renewal.KIND, renewal.work_piece))
        register(Kind(planned.KIND, planned.work_piece, made_from=planned.made_from))
