"""What a plain client needs to fetch, hash and write all items of a device, or to send them back: one connection that
is kept, one after the other. plain_client.py ADDRESS SERIAL FOLDER [send]"""

import hashlib
import http.client
import json
import os
import sys
import time
import urllib.parse

address, serial, folder = sys.argv[1:4]
connection = http.client.HTTPConnection(urllib.parse.urlsplit(address).netloc)
connection.request("GET", f"/devices/{serial}/content")
items = [i for i in map(json.loads, connection.getresponse().read().decode().splitlines()) if "path" in i]
started = time.monotonic()
for item in items if "send" in sys.argv else []:
    name = f"{item['kind']}/{item['path']}"
    with open(f"{folder}/{name}", "rb") as text:
        connection.request("PUT", f"/devices/{serial}/returns/plain/content/{urllib.parse.quote(name)}", text.read(),
                           {"X-Modified-At": item["modifiedAt"], "Content-Type": "application/octet-stream"})
    connection.getresponse().read()
for item in items if "send" not in sys.argv else []:
    name = f"{item['kind']}/{item['path']}"
    connection.request("GET", f"/devices/{serial}/content/{urllib.parse.quote(name)}")
    answer = connection.getresponse()
    digest = hashlib.sha256()
    os.makedirs(os.path.dirname(f"{folder}/{name}"), exist_ok=True)
    with open(f"{folder}/{name}", "wb") as out:
        while piece := answer.read(1 << 18):
            digest.update(piece)
            out.write(piece)
    if digest.hexdigest() != item["sha256"]:
        raise SystemExit(f"{name} is not as it was listed.")
print(json.dumps({"seconds": time.monotonic() - started, "items": len(items)}))
