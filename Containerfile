# Jadefell with its private database in one container:
#   podman build -t jadefell . && podman run -d -p 4747:4747 -v jadefell:/data --stop-timeout 60 jadefell
# With DATABASE_URL the private database stays asleep, and any number of these serve one cluster.
FROM docker.io/library/node:20-bookworm-slim AS build
WORKDIR /opt/jadefell
COPY package.json package-lock.json ./
RUN npm ci
COPY . .
RUN node scripts/build.mjs && npm prune --omit=dev

FROM docker.io/library/node:20-bookworm-slim
RUN apt-get update \
 && apt-get install -y --no-install-recommends mariadb-server-core mariadb-client \
 && rm -rf /var/lib/apt/lists/* \
 && useradd --system --home-dir /data jadefell \
 && install -d -o jadefell -g jadefell -m 700 /data
WORKDIR /opt/jadefell
COPY --from=build /opt/jadefell ./
USER jadefell
ENV NODE_ENV=production JADEFELL_DATA=/data HOST=0.0.0.0 PORT=4747
VOLUME /data
EXPOSE 4747
STOPSIGNAL SIGINT
HEALTHCHECK --start-period=60s CMD ["node", "-e", "fetch('http://127.0.0.1:'+process.env.PORT+'/api/live').then(r=>process.exit(r.ok?0:1),()=>process.exit(1))"]
CMD ["node", "scripts/run.mjs"]
