<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>API reference · Jade Step</title>
    <link rel="icon" href="/icon.svg" type="image/svg+xml">
    @vite('resources/reference/main.ts')
</head>
<body>
    <rapi-doc
        spec-url="/reference/openapi.json"
        render-style="read"
        load-fonts="false"
        allow-try="false"
        allow-authentication="false"
        allow-server-selection="false"
        allow-spec-url-load="false"
        allow-spec-file-load="false"
        show-header="false"
        show-curl-before-try="true"
        schema-style="table"
        primary-color="#0d5c4a"
        bg-color="#fffef9"
        text-color="#22241f"
        nav-bg-color="#f5f2ea"
        nav-text-color="#22241f"
        regular-font="'Atkinson Hyperlegible Next Variable', sans-serif"
        mono-font="'JetBrains Mono Variable', monospace"
    >
        <p slot="nav-logo"><a href="/">Jade Step</a> · API reference</p>
    </rapi-doc>
    <noscript>The reference needs JavaScript. It is also a file: docs/openapi.yaml.</noscript>
</body>
</html>
