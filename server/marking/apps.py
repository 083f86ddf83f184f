from django.apps import AppConfig


class MarkingConfig(AppConfig):
    name = "server.marking"
    label = "marking"

    def ready(self) -> None:
        """A pile is verified among the jobs, and what was to be expected of its items is worked out; what the classes
        do weighs slips."""
        from server.jobs.pieces import Kind, register
        from server.marking import learned, pile
        from server.solving import weights

        register(Kind(pile.KIND, pile.work_piece))
        register(Kind(learned.KIND, learned.work_piece))
        weights.register(learned.factors)
