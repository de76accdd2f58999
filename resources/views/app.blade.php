<!doctype html>
<html lang="en" @if ($theme) data-theme="{{ $theme }}" @endif>
    <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <title>Kybernet</title>
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        @vite('resources/js/main.ts')
    </head>
    <body>
        <div id="app"></div>
        <noscript>Kybernet needs JavaScript to draw its scorecards.</noscript>
    </body>
</html>
