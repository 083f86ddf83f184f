from django.apps import AppConfig


class RoomConfig(AppConfig):
    name = "server.room"
    label = "room"

    def ready(self) -> None:
        """What is verified among the jobs, and what is written in a student's place, is seen in its room."""
        from server.common.events import listen
        from server.marking.events import LinesPut, LinesVerified
        from server.room.services import seen_late, written_for

        listen(LinesVerified, seen_late)
        listen(LinesPut, written_for)
