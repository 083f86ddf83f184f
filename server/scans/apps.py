from django.apps import AppConfig


class ScansConfig(AppConfig):
    name = "server.scans"
    label = "scans"

    def ready(self) -> None:
        """Pages are read among the jobs."""
        from server.jobs.pieces import Kind, register  # noqa: PLC0415  (models are known only now)
        from server.scans import services  # noqa: PLC0415

        register(Kind(services.KIND, services.work_piece))
