# Uchuu as a container: the server of one machine, with the database beside it (see compose.yaml).
# Build:  podman build -t uchuu .      or with any other tool that reads this file
FROM docker.io/library/debian:12-slim AS build
RUN apt-get update \
 && apt-get install -y --no-install-recommends python3 python3-venv ca-certificates libatomic1 \
 && rm -rf /var/lib/apt/lists/*
WORKDIR /opt/uchuu
COPY requirements/base.lock requirements/base.lock
RUN python3 -m venv .venv && .venv/bin/pip install -q --require-hashes -r requirements/base.lock
COPY web web
COPY tools/__init__.py tools/front.py tools/
ENV PATH=/opt/uchuu/.venv/bin:$PATH PYTHONPATH=/opt/uchuu
RUN python3 -c "from tools import front; front.ensure_built()" && rm -rf web/node_modules

FROM docker.io/library/debian:12-slim
RUN apt-get update \
 && apt-get install -y --no-install-recommends python3 libatomic1 postgresql-client \
    fonts-noto-core fonts-wqy-microhei fonts-symbola \
 && rm -rf /var/lib/apt/lists/* \
 && useradd --system --no-create-home --shell /usr/sbin/nologin uchuu \
 && install -d -o uchuu -g uchuu /var/lib/uchuu
WORKDIR /opt/uchuu
COPY --from=build /opt/uchuu/.venv .venv
COPY algebra algebra
COPY lanes lanes
COPY paper paper
COPY cli cli
COPY server server
COPY standins standins
COPY tools tools
COPY manage.py LICENSE ./
COPY --from=build /opt/uchuu/web/dist web/dist
ENV PATH=/opt/uchuu/.venv/bin:$PATH PYTHONPATH=/opt/uchuu UCHUU_HOME=/var/lib/uchuu PYTHONUNBUFFERED=1
USER uchuu
VOLUME /var/lib/uchuu
EXPOSE 8000
HEALTHCHECK --interval=15s --timeout=8s --start-period=40s \
    CMD ["python3", "-c", "from urllib.request import urlopen; urlopen('http://127.0.0.1:8000/readyz', timeout=7)"]
CMD ["python3", "-m", "tools.main", "start", "--empty", "--address", "0.0.0.0", "--port", "8000"]
