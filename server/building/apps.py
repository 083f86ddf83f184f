from django.apps import AppConfig


class BuildingConfig(AppConfig):
    name = "server.building"
    label = "building"

    def ready(self) -> None:
        """Ladders are drawn among the jobs."""
        from server.building import ladders
        from server.jobs.pieces import Kind, register

        register(Kind(ladders.KIND, ladders.work_piece, made_from=ladders.made_from))
