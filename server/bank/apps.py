from django.apps import AppConfig


class BankConfig(AppConfig):
    name = "server.bank"
    label = "bank"

    def ready(self) -> None:
        """Problems are looked through among the jobs."""
        from server.bank import services
        from server.jobs.pieces import Kind, register

        register(Kind(services.KIND, services.work_piece))
