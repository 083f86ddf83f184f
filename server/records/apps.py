from django.apps import AppConfig


class RecordsConfig(AppConfig):
    name = "server.records"
    label = "records"

    def ready(self) -> None:
        """Marks are sent among the jobs."""
        from server.jobs.pieces import Kind, register  # noqa: PLC0415  (models are known only now)
        from server.records import sending  # noqa: PLC0415

        register(Kind(sending.KIND, sending.work_piece))
