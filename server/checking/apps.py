from django.apps import AppConfig


class CheckingConfig(AppConfig):
    name = "server.checking"
    label = "checking"
