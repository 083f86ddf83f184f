from django.apps import AppConfig


class PapersConfig(AppConfig):
    name = "server.papers"
    label = "papers"
