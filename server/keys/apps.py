from django.apps import AppConfig


class KeysConfig(AppConfig):
    name = "server.keys"
    label = "keys"
