<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>{{ $title }}</title>
<style>
@page { margin: 14mm 12mm 16mm; }
body { font-family: "DejaVu Sans", sans-serif; font-size: 8pt; color: #22282f; }
h1 { font-size: 16pt; margin: 0 0 1mm; }
.head td { vertical-align: top; padding: 0 6mm 3mm 0; }
.head b { display: block; font-size: 11pt; }
table.rows { width: 100%; border-collapse: collapse; }
table.rows th { text-align: left; font-size: 7pt; color: #5d6570; border-bottom: 0.6pt solid #22282f; padding: 1mm 2mm 1mm 0; }
table.rows td { border-bottom: 0.3pt solid #cfc4ad; padding: 1.2mm 2mm 1.2mm 0; vertical-align: top; }
tr { page-break-inside: avoid; }
.mono { font-family: "DejaVu Sans Mono", monospace; font-size: 7pt; }
.soft { color: #5d6570; }
.circled { border: 0.8pt solid #22282f; border-radius: 3mm; padding: 0 1.2mm; }
.ng { text-decoration: line-through; }
img { width: 26mm; }
</style>
</head>
<body>
<h1>{{ $title }}</h1>
<table class="head"><tr>
<td class="soft">Production<b>{{ $production->name }}</b></td>
<td class="soft">Day<b>{{ $day->number }}, {{ $day->date->format('j F Y') }}</b></td>
<td class="soft">Unit<b>{{ $day->unit }}</b></td>
@if ($card)
<td class="soft">Device<b>{{ $card->device?->title() ?? 'none' }}</b></td>
<td class="soft">Custody<b>{{ $card->released_at
    ? 'released '.$card->released_at->format('j M H:i').' by '.$card->releasedBy?->name
    : ($card->isSafe() ? $card->files.' files, two verified copies' : $card->verified_files.' of '.$card->files.' files safe') }}</b></td>
@endif
<td class="soft">Clips<b>{{ count($rows) }}, {{ $circled }} circled</b></td>
<td class="soft">Running<b>{{ $running }}</b></td>
<td class="soft">Size<b>{{ number_format($bytes / 1e6, 1) }} MB</b></td>
</tr></table>
@if ($rows === [])
<p>No {{ $kind === 'camera' ? 'picture' : 'sound' }} clip here.</p>
@else
<table class="rows">
<thead><tr>
@if ($kind === 'camera')<th></th>@endif
<th>Roll</th><th>Clip</th><th>Slate</th><th>Start</th><th>Length</th>
@if ($kind === 'camera')<th>Picture</th>@else<th>Tracks</th>@endif
<th>Notes</th><th>Copies</th>
</tr></thead>
<tbody>
@foreach ($rows as $row)
<tr>
@if ($kind === 'camera')<td>@if ($row['picture'])<img src="{{ $row['picture'] }}" alt="">@endif</td>@endif
<td>{{ $row['roll'] }}<br><span class="soft">{{ $row['device'] }}</span></td>
<td class="mono">{{ $row['clip'] }}<br><span class="soft">{{ $row['checksum'] }}</span></td>
<td>@if ($row['setup']){{ $row['setup'] }} / <span class="{{ $row['status'] }}">{{ $row['take'] }}</span>@endif</td>
<td class="mono">{{ $row['start'] }}</td>
<td class="mono">{{ $row['length'] }}</td>
@if ($kind === 'camera')
<td>{{ $row['width'] }} x {{ $row['height'] }}<br><span class="soft">{{ $row['rate'] }} fps</span></td>
@else
<td>@foreach ($row['tracks'] as $number => $track){{ $number + 1 }} {{ $track }}<br>@endforeach
    <span class="soft">{{ $row['sample_rate'] }} Hz</span></td>
@endif
<td>{{ $row['notes'] }}@if ($row['problems'])<br><span class="soft">{{ $row['problems'] }}</span>@endif</td>
<td>{{ $row['copies'] }}</td>
</tr>
@endforeach
</tbody>
</table>
@endif
</body>
</html>
