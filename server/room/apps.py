from django.apps import AppConfig


class RoomConfig(AppConfig):
    name = "server.room"
    label = "room"

    def ready(self) -> None:
        """What is verified among the jobs, and what is written in a student's place, is seen in its room."""
        from server.marking.pile import verified  # noqa: PLC0415  (models are known only now)
        from server.marking.services import written  # noqa: PLC0415
        from server.room.services import seen_late, written_for  # noqa: PLC0415

        verified.connect(seen_late)
        written.connect(written_for)
