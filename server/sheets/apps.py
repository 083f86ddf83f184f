from django.apps import AppConfig


class SheetsConfig(AppConfig):
    name = "server.sheets"
    label = "sheets"
