from django.apps import AppConfig


class BankConfig(AppConfig):
    name = "server.bank"
    label = "bank"

    def ready(self) -> None:
        """Problems are looked through among the jobs."""
        from server.bank import services  # noqa: PLC0415  (models are known only now)
        from server.jobs.pieces import Kind, register  # noqa: PLC0415

        register(Kind(services.KIND, services.work_piece))
