<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>Open points</title>
<style>
@page { margin: 14mm; }
body { font-family: "DejaVu Sans", sans-serif; font-size: 8pt; color: #22282f; }
h1 { font-size: 16pt; margin: 0 0 1mm; }
table { width: 100%; border-collapse: collapse; }
th { text-align: left; font-size: 7pt; color: #5d6570; border-bottom: 0.6pt solid #22282f; padding: 0.8mm 2mm 0.8mm 0; }
td { border-bottom: 0.3pt solid #cfc4ad; padding: 0.8mm 2mm 0.8mm 0; vertical-align: top; }
.soft { color: #5d6570; }
</style>
</head>
<body>
<h1>Open points</h1>
<p class="soft">{{ $production->name }}, hand-off {{ $handoff->number }}, {{ $handoff->title }}</p>
@if ($waived === [])
<p>Nothing stood open when this package went.</p>
@else
<table>
<tr><th>What stood open</th><th>Why it went along</th><th>By</th></tr>
@foreach ($waived as $one)
<tr><td>{{ $one['title'] }}</td><td>{{ $one['reason'] }}</td><td class="soft">{{ $one['by'] }}</td></tr>
@endforeach
</table>
@endif
</body>
</html>
