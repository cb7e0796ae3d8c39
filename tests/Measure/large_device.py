"""A device with many made items behind the device link, for measuring: docs/device-link.md as far as a backup and a
return want it.

large_device.py PORT ITEMS BYTES [--changed SHARE] [--no-batch]

The content is made by rule and held by nobody, so that gigabytes cost no memory. It counts what it sends.
"""

import hashlib
import json
import sys
import threading
import urllib.parse
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
import random

SERIAL = "SKL-9001"
BASE = random.Random(7).randbytes(1 << 20)


class Device:
    def __init__(self, items, size, changed):
        self.size = size
        self.paired = False
        self.sent = {"requests": 0, "items": 0, "bytes": 0}
        self.lock = threading.Lock()
        self.staged = {}
        generation = [1 if i < items * changed else 0 for i in range(items)]
        self.items = {f"{i % 200:03d}/item-{i:06d}": (i, generation[i]) for i in range(items)}
        self.digests = {}
        lines = [{"kind": "photos", "items": items, "storeSchema": 9}]
        for path, at in sorted(self.items.items()):
            digest = hashlib.sha256()
            for piece in self.pieces(at):
                digest.update(piece)
            lines.append({"kind": "photos", "path": path, "bytes": size, "sha256": digest.hexdigest(),
                          "modifiedAt": "2026-11-01T12:00:00Z"})
        self.listing = ("\n".join(map(json.dumps, lines)) + "\n").encode()

    def pieces(self, at):
        head = json.dumps(at).encode().ljust(64)
        left = self.size
        piece = (head + BASE)[: min(left, 1 << 20)]
        while left > 0:
            yield piece[:left]
            left -= len(piece)
            piece = BASE

    def reading(self):
        kinds = [{"kind": "photos", "items": len(self.items), "bytes": len(self.items) * self.size,
                  "lastChangedAt": "2026-11-01T12:00:00Z", "syncedAt": None}]
        return {"serial": SERIAL, "imei": None, "hardwareId": "FN7-2", "modelName": "Fenn 7", "osLine": "tarn",
                "version": "9.3.0", "build": "9D55", "rollbackCounter": 3, "radioMinimum": 10,
                "capacityBytes": 512_000_000_000, "freeBytes": 1_000_000_000 if self.paired else None,
                "batteryPercent": 90, "charging": True, "ownerLock": "off", "lockDelay": "off",
                "lockDelayEndsAt": None, "betaEnrolled": False, "mode": "normal", "bootable": True,
                "paired": self.paired, "activated": True, "setUp": True, "accessories": [], "apps": [],
                "kinds": kinds if self.paired else [], "operation": None}


class Handler(BaseHTTPRequestHandler):
    protocol_version = "HTTP/1.1"
    wbufsize = 1 << 16
    disable_nagle_algorithm = True
    device: Device
    batch = True

    def log_message(self, *_):
        pass

    def do_GET(self):
        d = self.device
        parts = [urllib.parse.unquote(p) for p in urllib.parse.urlsplit(self.path).path.strip("/").split("/")]
        match parts:
            case ["sent"]:
                return self.tell(d.sent)
            case ["ports"]:
                return self.tell({"ports": [{"port": "A", "device": {
                    "serial": SERIAL, "mode": "normal", "modelName": "Fenn 7", "version": "9.3.0",
                    "paired": d.paired}}]})
            case ["devices", serial, *_] if serial != SERIAL:
                return self.refuse(404, "no-such-device")
            case ["devices", _]:
                return self.tell(d.reading())
            case ["devices", _, "operations", _]:
                return self.tell(self.done())
            case ["devices", _, "content"]:
                return self.give("application/jsonl", [d.listing], len(d.listing))
            case ["devices", _, "content", "photos", *path]:
                at = d.items.get("/".join(path))
                if at is None:
                    return self.refuse(404, "no-such-item")
                self.count(1, d.size)
                return self.give("application/octet-stream", d.pieces(at), d.size)
            case ["devices", _, "returns", _]:
                return self.tell({"items": sorted(d.staged)})
        return self.refuse(404, "not-found")

    def do_POST(self):
        d = self.device
        body = json.loads(self.rfile.read(int(self.headers.get("Content-Length") or 0)) or b"{}")
        parts = urllib.parse.urlsplit(self.path).path.strip("/").split("/")
        match parts:
            case ["devices", _, "operations"]:
                d.paired = d.paired or body["kind"] == "pair"
                return self.tell(self.done(body["kind"]))
            case ["devices", _, "content", "batch"] if self.batch:
                return self.give_many(body["items"])
            case ["devices", _, "returns"]:
                return self.tell({"return": "one"})
            case ["devices", _, "returns", _, "commit"]:
                return self.tell(self.done("return"))
        return self.refuse(404, "not-found")

    def do_PUT(self):
        left = int(self.headers["Content-Length"])
        self.count(1, left)
        digest = hashlib.sha256()
        while left > 0:
            piece = self.rfile.read(min(left, 1 << 18))
            digest.update(piece)
            left -= len(piece)
        path = urllib.parse.unquote(urllib.parse.urlsplit(self.path).path).split("/content/", 1)[1]
        self.device.staged[path] = digest.hexdigest()
        self.tell({"received": True})

    def give_many(self, wanted):
        known = [(i, self.device.items.get(i["path"])) for i in wanted]
        heads = [json.dumps({**i, "code": "no-such-item"} if at is None else {**i, "bytes": self.device.size})
                 .encode() + b"\n" for i, at in known]
        there = sum(1 for _, at in known if at is not None)
        self.count(there, there * self.device.size)

        def pieces():
            for head, (_, at) in zip(heads, known):
                yield head
                if at is not None:
                    yield from self.device.pieces(at)

        self.give("application/octet-stream", pieces(), sum(map(len, heads)) + there * self.device.size)

    def count(self, items, size):
        with self.device.lock:
            self.device.sent["requests"] += 1
            self.device.sent["items"] += items
            self.device.sent["bytes"] += size

    def done(self, kind="pair"):
        return {"id": "1", "kind": kind, "state": "done", "phase": "asking" if kind == "pair" else "restart",
                "progress": 1.0, "doNotDisturb": False, "wants": None, "error": None}

    def tell(self, told):
        text = json.dumps(told).encode()
        self.give("application/json", [text], len(text))

    def refuse(self, status, code):
        text = json.dumps({"type": "about:blank", "title": "No", "status": status, "detail": code, "code": code})
        self.give("application/problem+json", [text.encode()], len(text), status)

    def give(self, kind, pieces, size, status=200):
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(size))
        self.end_headers()
        for piece in pieces:
            self.wfile.write(piece)
        self.wfile.flush()


if __name__ == "__main__":
    words = sys.argv[1:]
    share = float(words[words.index("--changed") + 1]) if "--changed" in words else 0.0
    Handler.batch = "--no-batch" not in words
    Handler.device = Device(int(words[1]), int(words[2]), share)
    ThreadingHTTPServer(("127.0.0.1", int(words[0])), Handler).serve_forever()
