from django.apps import AppConfig


class ScansConfig(AppConfig):
    name = "server.scans"
    label = "scans"

    def ready(self) -> None:
        """Pages are read among the jobs."""
        from server.jobs.pieces import Kind, register
        from server.scans import services

        register(Kind(services.KIND, services.work_piece))
