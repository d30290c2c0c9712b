"""Answers over HTTP: levels for berth-planner, warnings for deck-signs."""
import json
from datetime import datetime
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import parse_qs, urlparse

from tidewatch import predict, stations


class Handler(BaseHTTPRequestHandler):
    def do_GET(self):
        url = urlparse(self.path)
        parts = url.path.strip("/").split("/")
        if parts[:2] != ["v2", "levels"] or len(parts) not in (3, 4):
            return self.answer(404, {"error": "try /v2/levels/STATION or /v2/levels/STATION/lowest"})
        station = stations.BY_NAME.get(parts[2])
        if station is None:
            return self.answer(404, {"error": f"there is no station {parts[2]}"})
        if len(parts) == 4 and parts[3] == "lowest":
            query = parse_qs(url.query)
            start, end = (datetime.fromisoformat(query[key][0].replace("Z", "+00:00")) for key in ("from", "until"))
            return self.answer(200, round(predict.lowest(station, start, end), 3))
        return self.answer(200, [[when.isoformat(), round(level, 3)] for when, level in predict.table(station, 1)])

    def answer(self, status, body):
        data = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)


def run(port):
    ThreadingHTTPServer(("127.0.0.1", port), Handler).serve_forever()
