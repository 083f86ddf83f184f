from django.apps import AppConfig


class SolvingConfig(AppConfig):
    name = "server.solving"
    label = "solving"
