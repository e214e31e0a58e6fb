<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>{{ $production->name }}, hand-off {{ $handoff->number }}</title>
<style>
@page { margin: 14mm; }
body { font-family: "DejaVu Sans", sans-serif; font-size: 8pt; color: #22282f; }
h1 { font-size: 16pt; margin: 0 0 1mm; }
h2 { font-size: 10pt; margin: 5mm 0 1mm; }
.rows { width: 100%; border-collapse: collapse; }
.rows th { text-align: left; font-size: 7pt; color: #5d6570; border-bottom: 0.6pt solid #22282f; padding: 0.8mm 2mm 0.8mm 0; }
.rows td { border-bottom: 0.3pt solid #cfc4ad; padding: 0.8mm 2mm 0.8mm 0; vertical-align: top; }
.num { text-align: right; white-space: nowrap; }
.soft { color: #5d6570; }
.scenes td { width: 25%; padding: 0 2mm 2mm 0; vertical-align: top; }
.scenes img { width: 42mm; }
</style>
</head>
<body>
<h1>{{ $production->name }}, hand-off {{ $handoff->number }}</h1>
<p class="soft">{{ $handoff->title }} · made {{ now()->format('j F Y, H:i') }} by {{ $handoff->user?->name }} ·
{{ $summary['clips'] }} clips, {{ $summary['takes'] }} takes</p>
<h2>What lies where</h2>
<table class="rows">
<tr>
    <th>Folder</th><th>What</th>
    <th>@if ($summary['since'] !== null) Since no. {{ $summary['since'] }} @endif</th>
    <th class="num">Number</th>
</tr>
@foreach ($summary['rows'] as $row)
<tr>
    <td><b>{{ $row['folder'] }}</b></td>
    <td>{{ $row['what'] }}</td>
    <td>@if ($summary['since'] !== null)
        @if ($row['new'] > 0) {{ $row['new'] }} new @endif
        @if ($row['changed'] > 0) {{ $row['changed'] }} changed @endif
        @if ($row['moved'] > 0) {{ $row['moved'] }} moved @endif
    @endif</td>
    <td class="num">{{ $row['count'] }}</td>
</tr>
@endforeach
<tr><td><b>log.csv, log.xlsx</b></td><td>everything that is known of each take and clip</td><td></td><td></td></tr>
<tr><td><b>reports/</b></td><td>camera, sound and daily reports, screening notes, open points</td><td></td><td></td></tr>
<tr><td><b>ascmhl/</b></td><td>hashes of all of it (ASC MHL); the package can be checked against them anywhere</td><td></td><td></td></tr>
</table>
<p>Lists name media by their place beside the list, by reel and by timecode; the files carry the same timecode.
Where an edit list had to shorten a reel, reels.csv says which one it means.</p>
@if ($scenes !== [])
<h2>Scenes</h2>
<table class="scenes">
@foreach (array_chunk($scenes, 4) as $some)
<tr>
@foreach ($some as $scene)
    <td>
        @if ($scene['picture'])<img src="{{ $scene['picture'] }}" alt=""><br>@endif
        <b>{{ $scene['scene'] }}</b>
        <span class="soft">{{ $scene['takes'] }} {{ $scene['takes'] === 1 ? 'take' : 'takes' }}</span>
    </td>
@endforeach
</tr>
@endforeach
</table>
@if ($more > 0)<p class="soft">and {{ $more }} more scenes.</p>@endif
@endif
@if ($waived !== [])
<h2>Goes along as it is</h2>
<table class="rows">
@foreach (array_slice($waived, 0, 30) as $one)
<tr><td>{{ $one['title'] }}</td><td>{{ $one['reason'] }}</td><td class="soft">{{ $one['by'] }}</td></tr>
@endforeach
</table>
@if (count($waived) > 30)<p class="soft">All {{ count($waived) }} are in reports/open points.csv.</p>@endif
@endif
@if ($answers !== [])
<h2>Answers to your questions</h2>
<table class="rows">
@foreach ($answers as $one)
<tr><td>{{ $one['question'] }}</td><td>{{ $one['answer'] }}</td></tr>
@endforeach
</table>
@endif
</body>
</html>
