from django.apps import AppConfig


class KeysConfig(AppConfig):
    name = "server.keys"
    label = "keys"

    def ready(self) -> None:
        """Long keys are worked out among the jobs."""
        from server.jobs.pieces import Kind, register
        from server.keys import services

        register(Kind(services.KIND, services.work_piece, made_from=services.made_from))
