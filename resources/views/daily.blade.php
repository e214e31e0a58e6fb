<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>Daily log</title>
<style>
@page { margin: 14mm 14mm 14mm; }
body { font-family: "DejaVu Sans", sans-serif; font-size: 8pt; color: #22282f; }
h1 { font-size: 16pt; margin: 0 0 1mm; }
h2 { font-size: 10pt; margin: 5mm 0 1mm; }
.head td { vertical-align: top; padding: 0 6mm 1mm 0; white-space: nowrap; }
.head b { display: block; font-size: 10pt; }
.rows { width: 100%; border-collapse: collapse; }
.rows th { text-align: left; font-size: 7pt; color: #5d6570; border-bottom: 0.6pt solid #22282f; padding: 0.8mm 2mm 0.8mm 0; }
.rows td { border-bottom: 0.3pt solid #cfc4ad; padding: 0.8mm 2mm 0.8mm 0; vertical-align: top; }
.rows .num { text-align: right; white-space: nowrap; }
.soft { color: #5d6570; }
</style>
</head>
<body>
<h1>Daily log</h1>
<table class="head"><tr>
<td class="soft">Production<b>{{ $production->name }}</b></td>
<td class="soft">Day<b>{{ $day->number }}, {{ $day->date->format('j F Y') }}</b></td>
<td class="soft">Unit<b>{{ $day->unit }}</b></td>
<td class="soft">Setups<b>{{ $setups }}</b></td>
<td class="soft">Takes<b>{{ $takes }}, {{ $circled }} circled</b></td>
<td class="soft">Shot<b>{{ $running }}</b></td>
</tr></table>
<h2>Scenes</h2>
@if ($scenes === [])
<p class="soft">No take is logged on this day.</p>
@else
<table class="rows">
<tr><th>Scene</th><th></th><th>Setups</th><th class="num">Takes</th><th class="num">Circled</th><th class="num">Shot</th></tr>
@foreach ($scenes as $scene)
<tr>
    <td><b>{{ $scene['scene'] }}</b></td>
    <td class="soft">{{ $scene['heading'] }}</td>
    <td>{{ implode(' ', $scene['setups']) }}</td>
    <td class="num">{{ $scene['takes'] }}</td>
    <td class="num">{{ $scene['circled'] }}</td>
    <td class="num">{{ $scene['running'] }}</td>
</tr>
@endforeach
</table>
@endif
<h2>Cards</h2>
@if ($cards === [])
<p class="soft">No card came in on this day.</p>
@else
<table class="rows">
<tr>
    <th>Roll</th>
    <th>Device</th>
    <th class="num">Clips</th>
    <th class="num">Running</th>
    <th class="num">Size</th>
    <th class="num">Custody</th>
</tr>
@foreach ($cards as $card)
<tr>
    <td><b>{{ $card['roll'] }}</b></td>
    <td class="soft">{{ $card['device'] }}</td>
    <td class="num">{{ $card['clips'] }}</td>
    <td class="num">{{ $card['running'] }}</td>
    <td class="num">{{ number_format($card['bytes'] / 1e6, 1) }} MB</td>
    <td class="num">{{ $card['state'] }}</td>
</tr>
@endforeach
</table>
@endif
<h2>Missing and open</h2>
@forelse ($shown as $point)
<div><b>{{ rtrim($point['title'], '.?') }}{{ str_ends_with($point['title'], '?') ? '?' : '.' }}</b>
    <span class="soft">{{ $point['evidence'] }}</span></div>
@empty
<p class="soft">Nothing is open.</p>
@endforelse
@if ($more > 0)<div class="soft">And {{ $more }} more.</div>@endif
</body>
</html>
