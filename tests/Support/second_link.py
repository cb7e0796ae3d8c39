"""A second device link with one device in memory, written from docs/device-link.md alone.

usage: second_link.py PORT ADDRESS-OF-THE-VENDOR

It exists so that the contract is checked against two programs that share nothing. Needs Python's standard library and
the openssl program, which verifies Ed25519.
"""

import base64
import hashlib
import json
import re
import subprocess
import sys
import tempfile
import threading
import time
import urllib.parse
import urllib.request
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

PLAIN = ["photos", "messages", "contacts", "calendars", "notes", "recordings", "call-log", "app-data", "home-layout",
         "settings", "wallpaper"]
ENCRYPTED_TOO = ["saved-passwords", "health", "accessory-pairing"]
PHASES = {"pair": ["asking"], "enter-recovery": ["recognising"], "leave-recovery": ["restart"],
          "install": ["extract", "verify", "write", "restart"], "activate": ["activate"],
          "return": ["apply", "restart"],
          "set-up": ["set-up"]}
UNDISTURBED = {("install", "extract"), ("install", "verify"), ("install", "write"), ("return", "apply")}
PHASE_SECONDS = 0.25


class No(Exception):
    def __init__(self, status, code, detail):
        super().__init__(detail)
        self.status, self.code, self.detail = status, code, detail


def rfc3339(seconds):
    return time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime(seconds))


def unbase64(text):
    return base64.urlsafe_b64decode(text + "=" * (-len(text) % 4))


def signature_holds(key, message, signature):
    der = bytes.fromhex("302a300506032b6570032100") + key
    pem = b"-----BEGIN PUBLIC KEY-----\n" + base64.encodebytes(der) + b"-----END PUBLIC KEY-----\n"
    with tempfile.NamedTemporaryFile() as k, tempfile.NamedTemporaryFile() as m, tempfile.NamedTemporaryFile() as s:
        for file, content in ((k, pem), (m, message), (s, signature)):
            file.write(content)
            file.flush()
        return subprocess.run(["openssl", "pkeyutl", "-verify", "-pubin", "-inkey", k.name, "-rawin", "-in", m.name,
                               "-sigfile", s.name], capture_output=True).returncode == 0


def order(version):
    """A key that sorts versions: numbers first, and a pre-release before its release."""
    numbers, _, pre = version.partition("-")
    parts = [int(n) for n in numbers.split(".")] + [0, 0]
    identifiers = [(0, int(i), "") if i.isdigit() else (1, 0, i) for i in pre.split(".")] if pre else [(2, 0, "")]
    return parts[:3], identifiers


def within(version, ranges):
    for part in ranges.split():
        sign, bound = re.match(r"(>=|<=|>|<|=)?(.+)", part).groups()
        a, b = order(version), order(bound)
        if not {">=": a >= b, "<=": a <= b, ">": a > b, "<": a < b}.get(sign, a == b):
            return False
    return True


class Device:
    def __init__(self, keys):
        self.lock = threading.RLock()
        self.keys = keys
        self.state = {"serial": "ALT-0001", "imei": "352099110001019", "hardwareId": "FN7-2", "modelName": "Fenn 7",
                      "osLine": "tarn", "version": "9.3.0", "build": "9D55", "rollbackCounter": 3, "radioMinimum": 10,
                      "capacityBytes": 64_000_000_000, "batteryPercent": 90, "charging": True, "ownerLock": "off",
                      "lockDelay": "off", "lockDelayEndsAt": None, "betaEnrolled": False, "mode": "normal",
                      "bootable": True, "paired": False, "activated": True, "setUp": True}
        self.schemas = {"messages": 14, "photos": 9}
        now = time.time() - 5000
        self.content = {}
        for kind, count in {"photos": 6, "messages": 2, "contacts": 4, "notes": 2, "saved-passwords": 1, "health": 1,
                            "payment-cards": 1, "esim": 1}.items():
            for i in range(count):
                content = hashlib.sha256(f"{kind}{i}".encode()).digest() * (20 + i)
                self.content[kind, f"part-{i // 3}/item {i}.bin"] = (content, now)
        self.nonce, self.packages, self.operations, self.returns = None, {}, {}, {}
        self.write_system()

    def write_system(self):
        about = json.dumps({"version": self.state["version"], "build": self.state["build"]}).encode()
        self.content["settings", "system/about.json"] = (about, time.time())

    # operations

    def catch_up(self):
        for op in self.operations.values():
            if op["state"] != "running":
                continue
            phases = PHASES[op["kind"]]
            reached = min(len(phases), int((time.time() - op["began"]) / PHASE_SECONDS))
            for phase in phases[: reached + 1][len(op["done"]):]:
                op["done"].append(phase)
                self.enter(op, phase)
            if reached >= len(phases):
                op["state"] = "done"
                self.finish(op)

    def enter(self, op, phase):
        if phase == "restart":
            self.state["mode"] = "restarting"
        if op["kind"] == "install" and phase == "write" and not op["keepData"]:
            self.content = {k: v for k, v in self.content.items() if k[0] == "esim"}
            self.state.update(paired=False, activated=False, setUp=False)
            self.returns = {}
        if op["kind"] == "return" and phase == "apply":
            offer = self.returns[op["return"]]
            for kind in offer["kinds"]:
                reads = self.schemas.get(kind["kind"])
                if reads is None or kind["storeSchema"] is None or kind["storeSchema"] <= reads:
                    self.content = {k: v for k, v in self.content.items() if k[0] != kind["kind"]}
                    self.content.update({k: v for k, v in offer["staged"].items() if k[0] == kind["kind"]})
            self.write_system()

    def finish(self, op):
        kind = op["kind"]
        if kind == "pair":
            self.state["paired"] = True
        elif kind == "enter-recovery":
            self.state["mode"] = "recovery"
        elif kind == "activate":
            self.state["activated"] = True
        elif kind == "set-up":
            self.state["setUp"] = True
        else:
            self.state["mode"] = "normal"
        if kind == "install":
            head = op["head"]
            self.state.update(version=head["version"], build=head["build"], bootable=True,
                              rollbackCounter=max(self.state["rollbackCounter"], head["rollbackIndex"]))
            self.schemas = head["storeSchemas"]
            self.write_system()

    def begin(self, kind, **facts):
        for op in self.operations.values():
            if op["state"] == "running":
                if op["kind"] == kind:
                    return self.told(op)
                raise No(409, "busy", "The device is busy with other work.")
        op = {"id": hashlib.sha256(str(time.time()).encode()).hexdigest()[:16], "kind": kind, "state": "running",
              "began": time.time(), "done": [], **facts}
        self.operations[op["id"]] = op
        self.catch_up()
        return self.told(op)

    def told(self, op):
        phases = PHASES[op["kind"]]
        phase = (op["done"] or phases)[-1] if op["done"] else phases[0]
        running = op["state"] == "running"
        return {"id": op["id"], "kind": op["kind"], "state": op["state"], "phase": phase,
                "progress": min(1.0, (time.time() - op["began"]) / (PHASE_SECONDS * len(phases))) if running else 1.0,
                "doNotDisturb": running and (op["kind"], phase) in UNDISTURBED,
                "wants": None, "error": None}

    # what it wants

    def want_mode(self, mode):
        if self.state["mode"] != mode:
            raise No(409, f"not-in-{mode}-mode", f"The device is in {self.state['mode']} mode.")

    def want_paired(self):
        self.want_mode("normal")
        if not self.state["paired"]:
            raise No(403, "not-paired", "The device has not said yes to this computer.")

    # calls

    def ports(self):
        shown = {k: self.state[k] for k in ("serial", "mode", "modelName", "version", "paired")}
        return {"ports": [{"port": "A", "device": None if self.state["mode"] == "restarting" else shown}]}

    def reading(self):
        open_ = self.state["paired"] and self.state["mode"] == "normal"
        kinds = {}
        for (kind, _), (content, at) in self.content.items():
            k = kinds.setdefault(kind, {"kind": kind, "items": 0, "bytes": 0, "lastChangedAt": None, "syncedAt": None})
            k["items"] += 1
            k["bytes"] += len(content)
            k["lastChangedAt"] = max(k["lastChangedAt"] or "", rfc3339(at))
        running = [op for op in self.operations.values() if op["state"] == "running"]
        return {**self.state, "freeBytes": 50_000_000_000 if open_ else None, "accessories": [], "apps": [],
                "kinds": list(kinds.values()) if open_ else [], "operation": self.told(running[0]) if running else None}

    def start(self, kind):
        if kind in ("pair", "enter-recovery", "activate"):
            self.want_mode("normal")
        elif kind == "leave-recovery":
            self.want_mode("recovery")
            if not self.state["bootable"]:
                raise No(409, "not-bootable", "The device runs no build now.")
        elif kind == "set-up":
            if not self.state["activated"]:
                raise No(409, "not-activated", "The device is to be activated first.")
        else:
            raise No(404, "not-found", "There is no such work.")
        return self.begin(kind)

    def carried(self, encrypted):
        return PLAIN + (ENCRYPTED_TOO if encrypted else [])

    def listing(self, encrypted):
        self.want_paired()
        lines = []
        for kind in self.carried(encrypted):
            items = sorted((p, c, at) for (k, p), (c, at) in self.content.items() if k == kind)
            lines.append({"kind": kind, "items": len(items), "storeSchema": self.schemas.get(kind)})
            lines += [{"kind": kind, "path": p, "bytes": len(c), "sha256": hashlib.sha256(c).hexdigest(),
                       "modifiedAt": rfc3339(at)} for p, c, at in items]
        return "\n".join(json.dumps(line) for line in lines) + "\n"

    def item(self, kind, path, encrypted):
        self.want_paired()
        safe(path)
        if kind not in self.carried(encrypted):
            raise No(403, "encrypted-only", "This kind is handed out only into an encrypted backup.")
        if (kind, path) not in self.content:
            raise No(404, "no-such-item", "The device has no such item.")
        return self.content[kind, path][0]

    def items(self, wanted, encrypted):
        self.want_paired()
        told = []
        for one in wanted:
            name = {"kind": one["kind"], "path": one["path"]}
            try:
                content = self.item(one["kind"], one["path"], encrypted)
                told.append(json.dumps({**name, "bytes": len(content)}).encode() + b"\n" + content)
            except No as no:
                told.append(json.dumps({**name, "code": no.code, "detail": no.detail}).encode() + b"\n")
        return b"".join(told)

    def bring_in(self, kind, path, content, at):
        self.want_paired()
        safe(path)
        if not self.state["setUp"]:
            raise No(409, "not-set-up", "The device is to be set up first.")
        if self.state["ownerLock"] == "on":
            raise No(409, "owner-lock-on", "The owner lock is on.")
        if kind not in ("photos", "messages", "contacts", "calendars", "notes", "recordings", "call-log"):
            raise No(409, "whole-only", "This kind comes back with a whole backup only.")
        self.content[kind, path] = (content, at)
        return {"received": True}

    def new_nonce(self):
        self.want_mode("recovery")
        self.nonce = hashlib.sha256(str(time.time_ns()).encode()).hexdigest()[:32]
        return {"nonce": self.nonce}

    def take_package(self, sha256, offset, content):
        self.want_mode("recovery")
        held = self.packages.get(sha256, b"")[:offset]
        self.packages[sha256] = held + content
        return {"received": len(self.packages[sha256])}

    def install(self, body):
        self.want_mode("recovery")
        package = self.packages.get(body["packageSha256"])
        if package is None:
            raise No(409, "package-missing", "The device has not received the package.")
        claims = self.judged_permit(body["permit"])
        if hashlib.sha256(package).hexdigest() != claims["packageSha256"]:
            raise No(409, "package-altered", "The package is not the one that the permit names.")
        head = self.judged_head(package, claims)
        self.judge_move(head, body.get("keepData") is True)
        self.nonce = None
        return self.begin("install", head=head, keepData=body.get("keepData") is True)

    def judged_permit(self, permit):
        parts = permit.split(".")
        try:
            head, claims = json.loads(unbase64(parts[0])), json.loads(unbase64(parts[1]))
            key = self.keys[head["kid"]] if head["alg"] == "EdDSA" else b""
            good = signature_holds(key, f"{parts[0]}.{parts[1]}".encode(), unbase64(parts[2]))
        except (ValueError, KeyError, IndexError):
            good = False
        if not good:
            raise No(409, "permit-untrusted", "The permit is not signed by the vendor.")
        for wrong, code in ((claims["exp"] <= time.time(), "permit-expired"),
                            (claims["sub"] != self.state["serial"], "permit-other-device"),
                            (claims["hardwareId"] != self.state["hardwareId"], "permit-other-model"),
                            (self.nonce is None or claims["nonce"] != self.nonce, "permit-other-nonce")):
            if wrong:
                raise No(409, code, "The permit does not fit.")
        return claims

    def judged_head(self, package, claims):
        lines = package[:65536].split(b"\n", 2)
        if lines[0] != b"FWP1" or len(lines) < 3:
            raise No(409, "package-unreadable", "This is no package.")
        head = json.loads(lines[1])
        for wrong, code in ((self.state["hardwareId"] not in head["hardwareIds"], "wrong-model"),
                            (head["build"] != claims["build"], "permit-other-build"),
                            (head["rollbackIndex"] < self.state["rollbackCounter"], "rollback-floor")):
            if wrong:
                raise No(409, code, "The package does not fit.")
        return head

    def judge_move(self, head, keep):
        if not keep:
            if not head.get("eraseInstall", True):
                raise No(409, "in-place-only", "The build is installed in place only.")
            return
        if not self.state["bootable"]:
            raise No(409, "not-bootable", "The device runs nothing that a build could take the place of.")
        up = order(head["version"]) > order(self.state["version"])
        ranges = head["inPlaceFrom"] if up else head["stepDownFrom"]
        if ranges is None or not within(self.state["version"], ranges):
            raise No(409, "not-accepted-in-place" if up else "not-accepted-step-down",
                     "The build does not take this one's place.")

    def offer(self, body):
        self.want_paired()
        if not self.state["activated"]:
            raise No(409, "not-activated", "The device is to be activated first.")
        if self.state["ownerLock"] == "on":
            raise No(409, "owner-lock-on", "The owner lock is on.")
        if order(body["declaredVersion"]) > order(self.state["version"]):
            raise No(409, "backup-too-new", "The backup is from a newer version.")
        name = hashlib.sha256(json.dumps(body, sort_keys=True).encode()).hexdigest()[:16]
        self.returns.setdefault(name, {"kinds": body["kinds"], "staged": {}})
        return {"return": name}

    def returning(self, name):
        if name not in self.returns:
            raise No(404, "no-such-return", "The device knows no such return.")
        return self.returns[name]

    def commit(self, name):
        self.want_paired()
        offer = self.returning(name)
        for kind in offer["kinds"]:
            have = sum(1 for k, _ in offer["staged"] if k == kind["kind"])
            if have != kind["items"]:
                raise No(409, "return-incomplete", f"Of {kind['kind']}, {have} of {kind['items']} items were received.")
        return self.begin("return", **{"return": name})


def safe(path):
    if path == "" or any(part in ("", ".", "..") for part in path.split("/")) or re.search(r"[\x00-\x1f\\]", path):
        raise No(400, "unsafe-path", "This path does not name an item.")


class Handler(BaseHTTPRequestHandler):
    device: Device
    batch = "breaks" if "--batch-breaks" in sys.argv else "--no-batch" not in sys.argv
    protocol_version = "HTTP/1.1"

    def log_message(self, *_):
        pass

    def answer(self, method):
        url = urllib.parse.urlsplit(self.path)
        query = dict(urllib.parse.parse_qsl(url.query))
        parts = [urllib.parse.unquote(p) for p in url.path.strip("/").split("/")]
        if self.headers.get("Transfer-Encoding") == "chunked":
            body = self.chunks()
        else:
            body = self.rfile.read(int(self.headers.get("Content-Length") or 0))
        try:
            with self.device.lock:
                self.device.catch_up()
                result = self.route(method, parts, query, body)
        except No as no:
            return self.send(no.status, "application/problem+json", json.dumps(
                {"type": "about:blank", "title": "No", "status": no.status, "detail": no.detail,
                 "code": no.code}).encode())
        if isinstance(result, bytes):
            return self.send(200, "application/octet-stream", result)
        if isinstance(result, str):
            return self.send(200, "application/jsonl", result.encode())
        return self.send(200, "application/json", json.dumps(result).encode())

    def chunks(self):
        content = b""
        while (size := int(self.rfile.readline().split(b";")[0], 16)) > 0:
            content += self.rfile.read(size)
            self.rfile.readline()
        self.rfile.readline()
        return content

    def route(self, method, parts, query, body):
        d = self.device
        told = (lambda: json.loads(body)) if body else dict
        encrypted = query.get("backup") == "encrypted"
        if (method, parts) == ("GET", ["ports"]):
            return d.ports()
        if parts[0] != "devices" or len(parts) < 2:
            raise No(404, "not-found", "There is nothing at this address.")
        if parts[1] != d.state["serial"]:
            raise No(404, "no-such-device", "No such device is plugged in.")
        match (method, parts[2:]):
            case ("GET", []):
                return d.reading()
            case ("POST", ["operations"]):
                return d.start(told()["kind"])
            case ("GET", ["operations", id]):
                if id not in d.operations:
                    raise No(404, "no-such-operation", "The device knows no such work.")
                return d.told(d.operations[id])
            case ("GET", ["content"]):
                return d.listing(encrypted)
            case ("POST", ["content", "batch"]) if self.batch == "breaks":
                raise RuntimeError("A link that did not expect this call ends the connection.")
            case ("POST", ["content", "batch"]) if self.batch:
                return d.items(told()["items"], encrypted)
            case ("GET", ["content", kind, *path]):
                return d.item(kind, "/".join(path), encrypted)
            case ("PUT", ["content", kind, *path]):
                return d.bring_in(kind, "/".join(path), body, self.modified_at())
            case ("POST", ["nonce"]):
                return d.new_nonce()
            case ("GET", ["packages", sha256]):
                return {"received": len(d.packages.get(sha256, b""))}
            case ("PUT", ["packages", sha256]):
                return d.take_package(sha256, int(query.get("offset", 0)), body)
            case ("POST", ["installs"]):
                return d.install(told())
            case ("POST", ["returns"]):
                return d.offer(told())
            case ("GET", ["returns", name]):
                return {"items": sorted(f"{k}/{p}" for k, p in d.returning(name)["staged"])}
            case ("PUT", ["returns", name, "content", kind, *path]):
                safe("/".join(path))
                d.returning(name)["staged"][kind, "/".join(path)] = (body, self.modified_at())
                return {"received": True}
            case ("POST", ["returns", name, "commit"]):
                return d.commit(name)
        raise No(404, "not-found", "There is nothing at this address.")

    def modified_at(self):
        return time.mktime(time.strptime(self.headers["X-Modified-At"][:19], "%Y-%m-%dT%H:%M:%S")) - time.timezone

    def send(self, status, type_, content):
        self.send_response(status)
        self.send_header("Content-Type", type_)
        self.send_header("Content-Length", str(len(content)))
        self.end_headers()
        self.wfile.write(content)

    def do_GET(self):
        self.answer("GET")

    def do_POST(self):
        self.answer("POST")

    def do_PUT(self):
        self.answer("PUT")


if __name__ == "__main__":
    with urllib.request.urlopen(f"{sys.argv[2]}/jwks.json") as answer:
        Handler.device = Device({jwk["kid"]: unbase64(jwk["x"]) for jwk in json.load(answer)["keys"]})
    ThreadingHTTPServer(("127.0.0.1", int(sys.argv[1])), Handler).serve_forever()
