<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>{{ $title }}</title>
<style>
@page { margin: 14mm 12mm 16mm; }
body { font-family: "DejaVu Sans", sans-serif; font-size: 9pt; color: #22282f; }
h1 { font-size: 16pt; margin: 0 0 1mm; }
h2 { font-size: 11pt; margin: 5mm 0 1mm; border-top: 0.6pt solid #22282f; padding-top: 2mm; }
.head td { vertical-align: top; padding: 0 6mm 3mm 0; }
.head b { display: block; font-size: 11pt; }
table.notes { width: 100%; border-collapse: collapse; }
table.notes td { vertical-align: top; padding: 1.4mm 3mm 1.4mm 0; border-bottom: 0.3pt solid #cfc4ad; }
tr { page-break-inside: avoid; }
.mono { font-family: "DejaVu Sans Mono", monospace; font-size: 8pt; }
.soft { color: #5d6570; }
img { width: 40mm; }
</style>
</head>
<body>
<h1>{{ $title }}</h1>
<table class="head"><tr>
<td class="soft">Production<b>{{ $production->name }}</b></td>
@if ($day)<td class="soft">Day<b>{{ $day->number }}, {{ $day->date->format('j F Y') }}</b></td>@endif
<td class="soft">Takes<b>{{ $takes }}</b></td>
<td class="soft">Running<b>{{ $running }}</b></td>
</tr></table>
@if ($people !== [])
<p>
@foreach ($people as $one)
<b>{{ $one['name'] }}</b>: {{ $one['notes'] }} {{ $one['notes'] === 1 ? 'note' : 'notes' }}
@if ($one['stars'] !== null), {{ $one['rated'] }} rated, {{ $one['stars'] }} of 5 on the mean @endif
<br>
@endforeach
</p>
@endif
@if ($rows === [])<p>Nothing was said of these takes yet.</p>@endif
@foreach ($rows as $row)
<h2>
<span class="mono">{{ $row['label'] }}</span>
@if ($row['status'] !== 'none') · {{ $row['status'] === 'ng' ? 'NG' : $row['status'] }} @endif
@if ($row['description'] !== '')<span class="soft">{{ $row['description'] }}</span>@endif
</h2>
@if ($row['ratings'] !== '')<p class="soft">{{ $row['ratings'] }}</p>@endif
@if ($row['notes'] !== [])
<table class="notes">
@foreach ($row['notes'] as $note)
<tr>
<td style="width: 42mm">@if ($note['picture'])<img src="{{ $note['picture'] }}" alt="">@endif</td>
<td><span class="mono">{{ $note['at'] }}</span> <span class="soft">{{ $note['by'] }}</span><br>{{ $note['text'] }}</td>
</tr>
@endforeach
</table>
@endif
@endforeach
</body>
</html>
