from django.apps import AppConfig


class MarkingConfig(AppConfig):
    name = "server.marking"
    label = "marking"

    def ready(self) -> None:
        """A pile is verified among the jobs."""
        from server.jobs.pieces import Kind, register  # noqa: PLC0415  (models are known only now)
        from server.marking import pile  # noqa: PLC0415

        register(Kind(pile.KIND, pile.work_piece))
