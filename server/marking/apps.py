from django.apps import AppConfig


class MarkingConfig(AppConfig):
    name = "server.marking"
    label = "marking"

    def ready(self) -> None:
        """A pile is verified among the jobs, and what was to be expected of its items is worked out; what the classes
        do weighs slips."""
        from server.jobs.pieces import Kind, register  # noqa: PLC0415  (models are known only now)
        from server.marking import learned, pile  # noqa: PLC0415
        from server.solving import weights  # noqa: PLC0415

        register(Kind(pile.KIND, pile.work_piece))
        register(Kind(learned.KIND, learned.work_piece))
        weights.register(learned.factors)
