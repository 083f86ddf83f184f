from django.apps import AppConfig


class RoomConfig(AppConfig):
    name = "server.room"
    label = "room"

    def ready(self) -> None:
        """What is verified among the jobs is seen in its room."""
        from server.marking.pile import verified  # noqa: PLC0415  (models are known only now)
        from server.room.services import seen_late  # noqa: PLC0415

        verified.connect(seen_late)
