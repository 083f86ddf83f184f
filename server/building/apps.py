from django.apps import AppConfig


class BuildingConfig(AppConfig):
    name = "server.building"
    label = "building"
