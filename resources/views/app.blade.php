<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Cartella</title>
<link rel="icon" href="/favicon.svg" type="image/svg+xml">
@vite('ui/main.ts')
</head>
<body>
<div id="app"></div>
<noscript>Cartella needs JavaScript.</noscript>
</body>
</html>
