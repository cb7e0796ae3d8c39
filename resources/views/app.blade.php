<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <meta name="color-scheme" content="light dark">
    <title>Jade Step</title>
    <link rel="icon" href="/icon.svg" type="image/svg+xml">
    @vite('resources/ui/main.ts')
</head>
<body>
    <div id="app"></div>
    <noscript>Jade Step needs JavaScript.</noscript>
</body>
</html>
