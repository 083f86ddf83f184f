from django.apps import AppConfig


class RecordsConfig(AppConfig):
    name = "server.records"
    label = "records"

    def ready(self) -> None:
        """Marks are sent among the jobs."""
        from server.jobs.pieces import Kind, register
        from server.records import sending

        register(Kind(sending.KIND, sending.work_piece))
