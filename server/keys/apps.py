from django.apps import AppConfig


class KeysConfig(AppConfig):
    name = "server.keys"
    label = "keys"

    def ready(self) -> None:
        """Long keys are worked out among the jobs."""
        from server.jobs.pieces import Kind, register  # noqa: PLC0415  (models are known only now)
        from server.keys import services  # noqa: PLC0415

        register(Kind(services.KIND, services.work_piece))
