"""Keeps what is sent to it, one JSON line a call: python3 webhook_catcher.py PORT FILE [STATUS]"""
import json
import sys
from http.server import BaseHTTPRequestHandler, HTTPServer


class Catcher(BaseHTTPRequestHandler):
    def do_POST(self):
        body = self.rfile.read(int(self.headers.get('content-length', 0))).decode()
        with open(sys.argv[2], 'a', encoding='utf-8') as kept:
            kept.write(json.dumps({'headers': {k.lower(): v for k, v in self.headers.items()}, 'body': body}) + '\n')
        self.send_response(int(sys.argv[3]) if len(sys.argv) > 3 else 204)
        self.end_headers()

    def log_message(self, *_):
        pass


HTTPServer(('127.0.0.1', int(sys.argv[1])), Catcher).serve_forever()
