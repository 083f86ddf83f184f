from django.apps import AppConfig


class RoomConfig(AppConfig):
    name = "server.room"
    label = "room"
